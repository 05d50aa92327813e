import type { Coverage, Pixels, Rgb } from '#core/artwork/trace/pixels.ts';

/** Within so many pixels of an edge what is full is looked for: as far as drawing and JPEG soften one. */
const EDGE_REACH = 2;
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
  for (let at = 0; at < values.length; at++) values[at] = data[4 * at + 3] as number;
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
 * colour near it lies from the ground, so that the edge stands where it was drawn, whatever the colours.
 *
 * @param tolerance what differs by less is ground, 0 to 255
 * @example coverByGround(blackPixel, { r: 255, g: 255, b: 255 }, 24).values[0] // 255
 */
export function coverByGround({ width, height, data }: Pixels, ground: Rgb, tolerance: number): Coverage {
  const differs = new Uint8Array(width * height);
  for (let at = 0; at < differs.length; at++) {
    const alpha = (data[4 * at + 3] as number) / 255;
    differs[at] = Math.round(alpha * apart(data, 4 * at, ground));
  }
  const fullest = spreadMost(spreadMost(differs, width, height, 1), width, height, width);
  const values = differs.map((one, at) => {
    const full = fullest[at] as number;
    return full <= tolerance ? 0 : Math.min(255, Math.round((255 * one) / full));
  });
  return { width, height, values };
}

/** For each value the most within {@link EDGE_REACH} of it, along rows (step 1) or columns (step width). */
function spreadMost(values: Uint8Array, width: number, height: number, step: number): Uint8Array {
  const count = step === 1 ? width : height;
  const out = new Uint8Array(values.length);
  for (let at = 0; at < values.length; at++) {
    const place = step === 1 ? at % width : Math.floor(at / width);
    let most = 0;
    for (let off = -EDGE_REACH; off <= EDGE_REACH; off++) {
      if (place + off < 0 || place + off >= count) continue;
      const value = values[at + off * step] as number;
      if (value > most) most = value;
    }
    out[at] = most;
  }
  return out;
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
