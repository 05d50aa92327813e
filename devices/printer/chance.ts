/** A repeatable number in [0, 1) for a text: a printer of its own, apart from the cutter's. */
export function drawFor(seed: number, text: string): number {
  let mixed = (seed ^ 0x51ed270b) >>> 0;
  for (const letter of text) {
    mixed = Math.imul(mixed ^ (letter.codePointAt(0) ?? 0), 0x01000193);
    mixed = (mixed ^ (mixed >>> 13)) >>> 0;
  }
  mixed = Math.imul(mixed ^ (mixed >>> 16), 0x7feb352d);
  return ((mixed ^ (mixed >>> 15)) >>> 0) / 4294967296;
}
