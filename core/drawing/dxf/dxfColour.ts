import { colord } from 'colord';

/** The first nine colours of the index, from memory; 7 is the pen's own black on paper. */
const NAMED = [
  '#000000',
  '#ff0000',
  '#ffff00',
  '#00ff00',
  '#00ffff',
  '#0000ff',
  '#ff00ff',
  '#000000',
  '#808080',
  '#c0c0c0',
];
const SHADES = [1, 0.74, 0.6, 0.5, 0.3];

/**
 * The colour of an index of the DXF palette as #rrggbb: nine named ones, then 24 hues of five shades, full and pale,
 * then greys. Only used to tell groups of lines apart.
 *
 * @param index 1 to 255
 * @example dxfColour(5) // '#0000ff'
 */
export function dxfColour(index: number): string {
  const named = NAMED[index];
  if (named) return named;
  if (index >= 250) return grey(0.2 + (index - 250) * 0.15);
  const hue = (Math.floor(index / 10) - 1) * 15;
  const shade = SHADES[Math.floor((index % 10) / 2)] ?? 1;
  return colord({ h: hue, s: index % 2 === 1 ? 50 : 100, v: shade * 100 }).toHex();
}

/**
 * A true colour as #rrggbb. @param value 24 bits, red highest
 *
 * @example trueColour(0xff8000) // '#ff8000'
 */
export function trueColour(value: number): string {
  return `#${(value & 0xffffff).toString(16).padStart(6, '0')}`;
}

function grey(share: number): string {
  return colord({ h: 0, s: 0, v: Math.min(1, share) * 100 }).toHex();
}
