import { createHash } from 'node:crypto';

/** A repeatable number in [0, 1) for a text, from a seed. */
export function drawFor(seed: number, text: string): number {
  return createHash('sha256').update(`${seed}:${text}`).digest().readUInt32BE(0) / 4294967296;
}

/** About normal with a spread of one, from six uniform draws for a text. */
export function bell(text: string, draw: (text: string) => number): number {
  let sum = 0;
  for (let index = 0; index < 6; index++) sum += draw(`${text}/${index}`);
  return (sum - 3) * Math.SQRT2;
}

/** Between -1 and 1, most often near 0, from two uniform draws for a text. */
export function wedge(text: string, draw: (text: string) => number): number {
  return draw(`${text}/a`) + draw(`${text}/b`) - 1;
}
