import { keptPictureSize, sizeOfPicture } from '#core/drawing/keptPicture.ts';
import type { PictureSize } from '#core/drawing/pictureSize.ts';
import { FURTHEST_MM, type DrawnImage } from '#core/drawing/drawing.ts';
import type { Frame } from '#core/drawing/svg/svgFrame.ts';
import { readCoordinate } from '#core/drawing/svg/svgShape.ts';
import type { XmlElement } from '#core/drawing/svg/xmlTree.ts';
import { AppError } from '#core/errors/appError.ts';
import { composeAffine } from '#core/geometry/affine.ts';

/** Shapes that differ by less are the same: pixels are whole. */
const SAME_SHAPE = 0.005;
const PICTURE = /^data:image\/(png|jpeg);base64,[a-z0-9+/=\s]+$/i;

/**
 * A picture held in a drawing, or kept apart from it.
 *
 * @returns `outside` for one that is not in the file or of another kind, `null` for one of no size
 * @throws AppError `badDrawing` where it lies on no sheet
 * @example readSvgPicture({ attributes: { href: 'https://example.org/a.png' } }, { viewport: { width: 9, height: 9 } }) // 'outside'
 */
export function readSvgPicture(
  { attributes }: Pick<XmlElement, 'attributes'>,
  { affine, viewport: { width, height } }: Pick<Frame, 'affine' | 'viewport'>,
): DrawnImage | 'outside' | null {
  const address = attributes['href'] ?? attributes['xlink:href'] ?? '';
  const wide = readCoordinate(attributes['width'], width);
  const tall = readCoordinate(attributes['height'], height);
  if (!PICTURE.test(address) && !keptPictureSize(address)) return 'outside';
  if (!(wide > 0 && tall > 0)) return null;
  const x = readCoordinate(attributes['x'], width);
  const y = readCoordinate(attributes['y'], height);
  const toMm = composeAffine(affine, [wide, 0, 0, tall, x, y]);
  if (!toMm.every((one) => Math.abs(one) < FURTHEST_MM)) {
    throw new AppError(
      'badDrawing',
      'a picture lies where no sheet is: a number is not finite or far too large',
    );
  }
  const isFitted = (attributes['preserveAspectRatio'] ?? 'xMidYMid') !== 'none';
  const size = isFitted ? sizeOfPicture(address) : null;
  const isStretched = size === null ? isFitted : isOtherShape(size, wide / tall);
  return { data: address.replace(/\s+/g, ''), toMm, isPlain: !isStretched };
}

/** A frame of another shape shows less of a picture, or more than it. */
function isOtherShape({ widthPx, heightPx }: PictureSize, ratio: number): boolean {
  return Math.abs(widthPx / heightPx / ratio - 1) > SAME_SHAPE;
}
