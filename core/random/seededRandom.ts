/** A source of uniform numbers in [0, 1). Passed in wherever core needs chance. */
export type Random = () => number;

/**
 * A small repeatable generator: the same seed gives the same numbers on every machine. Not for secrets.
 * Source: the 32-bit mixing steps of Steele, Lea and Flood 2014, "Fast splittable pseudorandom number generators".
 *
 * @param seed any finite number; only its lowest 32 bits count
 * @example seededRandom(7)() === seededRandom(7)() // true
 */
export function seededRandom(seed: number): Random {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x9e3779b9) >>> 0;
    let mixed = state;
    mixed = Math.imul(mixed ^ (mixed >>> 16), 0x85ebca6b);
    mixed = Math.imul(mixed ^ (mixed >>> 13), 0xc2b2ae35);
    return ((mixed ^ (mixed >>> 16)) >>> 0) / 4294967296;
  };
}

/**
 * One standard normal number (Box and Muller 1958).
 *
 * @example drawNormal(seededRandom(1)) === drawNormal(seededRandom(1)) // true
 */
export function drawNormal(random: Random): number {
  const radius = Math.sqrt(-2 * Math.log(1 - random()));
  return radius * Math.cos(2 * Math.PI * random());
}

/**
 * Fills with standard normal numbers, two from each pair of uniform ones (Box and Muller 1958).
 *
 * @example fillNormals(seededRandom(1), new Float64Array(3)).length // 3
 */
export function fillNormals(random: Random, out: Float64Array): Float64Array {
  for (let index = 0; index < out.length; index += 2) {
    const radius = Math.sqrt(-2 * Math.log(1 - random()));
    const angle = 2 * Math.PI * random();
    out[index] = radius * Math.cos(angle);
    if (index + 1 < out.length) out[index + 1] = radius * Math.sin(angle);
  }
  return out;
}

/**
 * A 32-bit seed from a text (FNV-1a), so that the same question always gets the same draws.
 *
 * @example seedFromText('a') === seedFromText('a') // true
 */
export function seedFromText(text: string): number {
  let hash = 0x811c9dc5;
  for (let index = 0; index < text.length; index++) {
    hash = Math.imul(hash ^ text.charCodeAt(index), 0x01000193);
  }
  return hash >>> 0;
}
