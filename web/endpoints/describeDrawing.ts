import { groupKey, groupLines } from '#core/drawing/lineRoles.ts';
import { readSvg } from '#core/drawing/readSvg.ts';
import { writePathData } from '#core/drawing/writePathData.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import { dotsAlong } from '#core/geometry/dotsAlong.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { boundDrawing } from '#core/sheet/placeDrawing.ts';

/** A drawing ready to be shown: path data and marks per line, and the groups that roles are given to. */
export interface ShownDrawing {
  readonly box: BoxMm;
  readonly lines: readonly ShownLine[];
  readonly groups: readonly {
    readonly key: string;
    readonly layer: string | null;
    readonly colour: string;
    readonly count: number;
  }[];
  readonly leftOut: readonly string[];
}

export interface ShownLine {
  readonly id: number;
  readonly groupKey: string;
  readonly data: string;
  readonly dots: readonly PointMm[];
}

const DOT_EVERY_MM = 11;
/** Coarse enough to be quick: marks need no cutting tolerance. */
const MARK_TOLERANCE_MM = 0.2;

/** @throws AppError `badDrawing` */
export function describeDrawing(svg: string): ShownDrawing {
  const drawing = readSvg(svg);
  return {
    box: boundDrawing(drawing),
    lines: drawing.contours.map((line) => ({
      id: line.id,
      groupKey: groupKey(line),
      data: writePathData(line.contour),
      dots: dotsAlong(flattenContour(line.contour, MARK_TOLERANCE_MM), DOT_EVERY_MM),
    })),
    groups: groupLines(drawing).map(({ key, layer, colour, contourIds }) => ({
      key,
      layer,
      colour,
      count: contourIds.length,
    })),
    leftOut: drawing.leftOut,
  };
}
