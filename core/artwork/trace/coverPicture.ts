import type { Coverage, Pixels, Rgb } from '#core/artwork/trace/pixels.ts';

/** Colours of a border that differ by less are one ground, 0 to 255. */
const SAME_GROUND = 24;
/** A picture has a plain ground where so much of its border is of one colour. */
const PLAIN_SHARE = 0.6;
/** Colours are counted in steps of so many levels. */
const BIN = 8;

/**
 * The piece as its alpha says.
 *
 * @example coverByAlpha(blackPixel).values[0] // 255
 */
export function coverByAlpha({ width, height, data }: Pixels): Coverage {
  const values = new Uint8Array(width * height);
  for (let at = 0, from = 3; at < values.length; at++, from += 4) values[at] = data[from] as number;
  return { width, height, values };
}

/**
 * Whether anything of a picture is clear.
 *
 * @example hasClear(blackPixel) // false
 */
export function hasClear({ data }: Pixels): boolean {
  for (let at = 3; at < data.length; at += 4) if ((data[at] as number) < 128) return true;
  return false;
}

/**
 * The colour of the ground, where most of the border has one.
 *
 * @returns `null` for a border of many colours
 * @example findGround(whitePixel) // { r: 255, g: 255, b: 255 }
 */
export function findGround(pixels: Pixels): Rgb | null {
  const border = borderOf(pixels);
  const bins = new Map<number, number>();
  for (const at of border) {
    const key = binOf(pixels.data, at);
    bins.set(key, (bins.get(key) ?? 0) + 1);
  }
  const [commonest] = [...bins].reduce((best, one) => (one[1] > best[1] ? one : best), [-1, 0]);
  const first = border.find((at) => binOf(pixels.data, at) === commonest);
  if (first === undefined) return null;
  const near = border.filter((at) => apart(pixels.data, at, colourAt(pixels.data, first)) <= SAME_GROUND);
  if (near.length < PLAIN_SHARE * border.length) return null;
  const mean = (channel: number) =>
    Math.round(near.reduce((sum, at) => sum + (pixels.data[at + channel] as number), 0) / near.length);
  return { r: mean(0), g: mean(1), b: mean(2) };
}

/**
 * The piece as what differs from the ground. How far a pixel of a soft edge is covered is told by how far the fullest
 * colour within two pixels lies from the ground, so that the edge stands where it was drawn, whatever the colours.
 *
 * @param tolerance what differs by less is ground, 0 to 255
 * @example coverByGround(blackPixel, { r: 255, g: 255, b: 255 }, 24).values[0] // 255
 */
export function coverByGround({ width, height, data }: Pixels, ground: Rgb, tolerance: number): Coverage {
  const differs = new Uint8Array(width * height);
  const kinds = new Uint8Array(width * height);
  const { r, g, b } = ground;
  // In whole numbers and without calls: a slider waits for two million pixels.
  for (let at = 0, from = 0; at < differs.length; at++, from += 4) {
    let off = (data[from] as number) - r;
    if (off < 0) off = -off;
    let other = (data[from + 1] as number) - g;
    if (other < 0) other = -other;
    if (other > off) off = other;
    other = (data[from + 2] as number) - b;
    if (other < 0) other = -other;
    if (other > off) off = other;
    const alpha = data[from + 3] as number;
    if (alpha < 255) off = ((off * alpha) / 255 + 0.5) | 0;
    differs[at] = off;
    kinds[at] = off <= tolerance ? GROUND : INK;
  }
  const rows = kindsInRows(kinds, width, height);
  const values = new Uint8Array(width * height);
  for (let y = 0, at = 0; y < height; y++) {
    // Beyond the rim a row lies like the one at it: nothing new is found there.
    const end = at + width;
    let up = y > 1 ? at - 2 * width : 0;
    let above = y > 0 ? at - width : 0;
    let below = y < height - 1 ? at + width : at;
    let down = y < height - 2 ? at + 2 * width : below;
    for (; at < end; at++) {
      const kind =
        (rows[at] as number) |
        (rows[up++] as number) |
        (rows[above++] as number) |
        (rows[below++] as number) |
        (rows[down++] as number);
      // Away from the ground a pale colour beside a dark one is as much of the piece as that is.
      if (kind === INK) values[at] = 255;
      else if (kind !== GROUND) {
        const full = mostNear(differs, at, width, height);
        values[at] = ((255 * (differs[at] as number)) / full + 0.5) | 0;
      }
    }
  }
  return { width, height, values };
}

/** What is found near a pixel, as bits. */
const GROUND = 1;
const INK = 2;

/** For each pixel the kinds of all within two pixels of its row. */
function kindsInRows(kinds: Uint8Array, width: number, height: number): Uint8Array {
  const inRows = new Uint8Array(kinds.length);
  for (let y = 0, at = 0; y < height; y++) {
    const end = at + width;
    let [a, b] = [0, 0];
    let c = kinds[at] as number;
    let d = width > 1 ? (kinds[at + 1] as number) : 0;
    for (; at < end; at++) {
      const e = at + 2 < end ? (kinds[at + 2] as number) : 0;
      inRows[at] = a | b | c | d | e;
      a = b;
      b = c;
      c = d;
      d = e;
    }
  }
  return inRows;
}

/**
 * The most of all values within two pixels of one.
 *
 * @param values row by row
 * @example mostNear(pixelCoverage.values, 0, 1, 1) // 255
 */
export function mostNear(values: Uint8Array, at: number, width: number, height: number): number {
  const [x, y] = [at % width, Math.floor(at / width)];
  let most = 0;
  for (let row = Math.max(0, y - 2); row <= Math.min(height - 1, y + 2); row++) {
    for (let column = Math.max(0, x - 2); column <= Math.min(width - 1, x + 2); column++) {
      most = Math.max(most, values[row * width + column] as number);
    }
  }
  return most;
}

/** How far apart two colours are: the largest difference of a channel. */
function apart(data: Pixels['data'], at: number, { r, g, b }: Rgb): number {
  return Math.max(
    Math.abs((data[at] as number) - r),
    Math.abs((data[at + 1] as number) - g),
    Math.abs((data[at + 2] as number) - b),
  );
}

function colourAt(data: Pixels['data'], at: number): Rgb {
  return { r: data[at] as number, g: data[at + 1] as number, b: data[at + 2] as number };
}

function binOf(data: Pixels['data'], at: number): number {
  const { r, g, b } = colourAt(data, at);
  return (Math.floor(r / BIN) << 16) | (Math.floor(g / BIN) << 8) | Math.floor(b / BIN);
}

/** Where the pixels of the border stand among the bytes. */
function borderOf({ width, height }: Pixels): readonly number[] {
  const places: number[] = [];
  for (let x = 0; x < width; x++) places.push(4 * x, 4 * ((height - 1) * width + x));
  for (let y = 1; y < height - 1; y++) places.push(4 * y * width, 4 * (y * width + width - 1));
  return places;
}
