import { mostNear } from '#core/artwork/trace/coverPicture.ts';
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
  const dense = new Uint8Array(width * height);
  for (let at = 0, from = 3; at < dense.length; at++, from += 4) {
    const alpha = data[from] as number;
    dense[at] = alpha < FAINT ? 0 : alpha;
  }
  const values = dense.map((alpha, at) =>
    alpha === 0 || alpha === 255 ? alpha : Math.round((255 * alpha) / mostNear(dense, at, width, height)),
  );
  return { width, height, values };
}
