import { mostAround } from '#core/artwork/trace/coverPicture.ts';
import type { Coverage, Pixels } from '#core/artwork/trace/pixels.ts';

/** Fainter than this is seen by nobody: where a shadow or a glow ends, 0 to 255. */
const FAINT = 13;

/**
 * What shows of art on a clear ground, however thin its ink: a pixel of an edge is covered as far as it is as dense as the
 * densest within two pixels.
 *
 * @example coverShown(blackPixel).values[0] // 255
 */
export function coverShown({ width, height, data }: Pixels): Coverage {
  const values = new Uint8Array(width * height);
  for (let at = 0, from = 3; at < values.length; at++, from += 4) {
    const alpha = data[from] as number;
    values[at] = alpha < FAINT ? 0 : alpha;
  }
  const most = mostAround(values, width, height);
  for (let at = 0; at < values.length; at++) {
    const full = most[at] as number;
    if (full > 0 && full < 255) values[at] = Math.round((255 * (values[at] as number)) / full);
  }
  return { width, height, values };
}
