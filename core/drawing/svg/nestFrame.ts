import { areaOf, type ClipArea, type SvgClips } from '#core/drawing/svg/svgClip.ts';
import type { Frame } from '#core/drawing/svg/svgFrame.ts';
import { readCoordinate, type UserFrame } from '#core/drawing/svg/svgShape.ts';
import { readInnerViewport, readViewBox } from '#core/drawing/svg/svgViewport.ts';
import type { XmlElement } from '#core/drawing/svg/xmlTree.ts';
import { composeAffine, mapPoint } from '#core/geometry/affine.ts';
import { cornersOf } from '#core/geometry/box.ts';

/**
 * What a drawing or a symbol within another passes on: a place, a scale, and a frame that it shows nothing beyond.
 *
 * @throws AppError `badDrawing` for a viewBox that is none
 * Source: W3C SVG 1.1, sections 7.7 and 14.3.3.
 * @example nestFrame({ name: 'svg', attributes: { x: '5', overflow: 'visible' } }, { affine: [1, 0, 0, 1, 0, 0], viewport: { width: 9, height: 9 }, clip: null }, null).affine // [1, 0, 0, 1, 5, 0]
 */
export function nestFrame(
  { name, attributes }: Pick<XmlElement, 'name' | 'attributes'>,
  frame: Frame,
  clips: SvgClips,
): Frame {
  const { width, height } = frame.viewport;
  const place = {
    x: name === 'symbol' ? 0 : readCoordinate(attributes['x'], width),
    y: name === 'symbol' ? 0 : readCoordinate(attributes['y'], height),
    width: readCoordinate(attributes['width'] ?? '100%', width),
    height: readCoordinate(attributes['height'] ?? '100%', height),
  };
  const affine = composeAffine(frame.affine, readInnerViewport(attributes, place));
  const clip = attributes['overflow'] === 'visible' ? frame.clip : viewportClip(place, frame, clips);
  return { ...frame, affine, clip, viewport: readViewBox(attributes['viewBox']) ?? place };
}

function viewportClip(
  { x, y, width, height }: UserFrame & { readonly x: number; readonly y: number },
  { affine, clip }: Frame,
  clips: SvgClips,
): ClipArea | null {
  if (!(width > 0 && height > 0)) return clip;
  const corners = cornersOf({ minX: x, minY: y, maxX: x + width, maxY: y + height });
  return clips.both(areaOf([corners.map((corner) => mapPoint(affine, corner))]), clip);
}
