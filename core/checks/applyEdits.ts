import { startOf, type Contour } from '#core/geometry/contour.ts';
import type { DrawingEdit } from '#core/checks/drawingEdit.ts';
import { bridgeIslands } from '#core/checks/bridgeIslands.ts';
import { firstFreeId } from '#core/checks/firstFreeId.ts';
import { joinLines } from '#core/checks/joinLines.ts';
import { findDuplicates } from '#core/checks/findDuplicates.ts';
import { scaleDrawing } from '#core/drawing/scaleDrawing.ts';
import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import { boundContour, cornersOf, encloses, joinBoxes } from '#core/geometry/box.ts';
import { closeGaps, drawBorder } from '#core/drawing/border/border.ts';
import { coverLines, encloseLines } from '#core/drawing/coverLines.ts';
import { readSvgPath } from '#core/drawing/svg/svgPath.ts';
import { scaling } from '#core/geometry/affine.ts';
import { fillHoles, fillRings, offsetRings, uniteRings, type Rings } from '#core/geometry/clip.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { isInside } from '#core/geometry/polygon.ts';
import { ringOf } from '#core/geometry/ringOf.ts';
import { ringToContour } from '#core/geometry/ringToContour.ts';

/** The colour of lines that an offset draws: their group is called by it. */
export const OFFSET_COLOUR = '#1e2a32';

/**
 * The drawing after all mends, in their order. A mend whose lines are gone does nothing.
 *
 * @example applyEdits(drawing, []).contours.length // 2
 */
export function applyEdits(drawing: Drawing, edits: readonly DrawingEdit[]): Drawing {
  return edits.reduce(applyEdit, drawing);
}

function applyEdit(drawing: Drawing, edit: DrawingEdit): Drawing {
  switch (edit.kind) {
    case 'scale':
      return scaleDrawing(drawing, edit.factor);
    case 'join':
      return { ...drawing, contours: joinLines(drawing.contours, edit.withinMm) };
    case 'dropDuplicates': {
      const again = new Set(findDuplicates(drawing.contours).flatMap(({ again: ids }) => ids));
      return { ...drawing, contours: drawing.contours.filter(({ id }) => !again.has(id)) };
    }
    case 'drop':
      return { ...drawing, contours: drawing.contours.filter(({ id }) => !edit.lineIds.includes(id)) };
    case 'smooth':
      return reshape(drawing, edit.lineIds, (rings) => smoothRings(rings, edit.widthMm));
    case 'round':
      return reshape(drawing, edit.lineIds, (rings) => roundRings(rings, edit.radiusMm));
    case 'fillHoles':
      return dropWithin(drawing, edit.lineIds);
    case 'offset':
      return addOffset(drawing, edit);
    case 'frame':
      return addFrame(drawing, edit);
    case 'bridge':
      return { ...drawing, contours: bridgeIslands(drawing.contours, edit.lineIds, edit.widthMm) };
  }
}

/**
 * Opened and closed by half the width: spikes and bays narrower than it go, all else stays within a hair.
 *
 * @example smoothRings([square], 0.2).length // 1
 */
export function smoothRings(rings: Rings, widthMm: number): Rings {
  const half = widthMm / 2;
  const opened = offsetRings(offsetRings(rings, -half), half);
  return offsetRings(offsetRings(opened, half), -half);
}

/** Outer corners rounded by opening, inner ones by closing. */
function roundRings(rings: Rings, radiusMm: number): Rings {
  const outer = offsetRings(offsetRings(rings, -radiusMm), radiusMm);
  return offsetRings(offsetRings(outer, radiusMm), -radiusMm);
}

function reshape(drawing: Drawing, lineIds: readonly number[], change: (rings: Rings) => Rings): Drawing {
  const wanted = new Set(lineIds);
  let nextId = firstFreeId(drawing);
  const contours = drawing.contours.flatMap((line): readonly DrawnContour[] => {
    if (!wanted.has(line.id) || !line.contour.isClosed) return [line];
    const rings = change([ringOf(line.contour)]);
    // What falls apart keeps its first part under the old id; what vanishes stays as it was.
    if (rings.length === 0) return [line];
    return rings.map((ring, index) => ({
      ...line,
      id: index === 0 ? line.id : nextId++,
      contour: ringToContour(ring),
    }));
  });
  return { ...drawing, contours };
}

function dropWithin(drawing: Drawing, lineIds: readonly number[]): Drawing {
  const outer = drawing.contours.filter(({ id, contour }) => lineIds.includes(id) && contour.isClosed);
  const rings = outer.map(({ id, contour }) => ({
    id,
    box: boundContour(contour),
    ring: flattenContour(contour, 0.1),
  }));
  const contours = drawing.contours.filter(({ id, contour, strokeColour }) => {
    if (lineIds.includes(id) || strokeColour === null) return true;
    const box = boundContour(contour);
    const start = startOf(contour);
    return !rings.some((one) => one.id !== id && encloses(one.box, box) && isInside(start, one.ring));
  });
  return { ...drawing, contours };
}

function addFrame(
  drawing: Drawing,
  { like, marginMm, radiusMm }: Extract<DrawingEdit, { kind: 'frame' }>,
): Drawing {
  const pattern = drawing.contours.find(({ id }) => id === like);
  if (!pattern) return drawing;
  const box = joinBoxes(drawing.contours.map(({ contour }) => boundContour(contour)));
  const out = marginMm - radiusMm;
  const sharp = cornersOf({
    minX: box.minX - out,
    minY: box.minY - out,
    maxX: box.maxX + out,
    maxY: box.maxY + out,
  });
  const [ring] = offsetRings([sharp], radiusMm);
  if (!ring) return drawing;
  const id = firstFreeId(drawing);
  return {
    ...drawing,
    contours: [...drawing.contours, { ...pattern, id, shape: id, contour: ringToContour(ring) }],
  };
}

function addOffset(drawing: Drawing, edit: Extract<DrawingEdit, { kind: 'offset' }>): Drawing {
  const wanted = new Set(edit.lineIds);
  const lines = drawing.contours.filter(({ id }) => wanted.has(id));
  if (lines.length === 0 && !edit.covered) return drawing;
  const traced = edit.covered ? readSvgPath(edit.covered, scaling(drawing.scaledBy ?? 1)) : [];
  const drawn = drawOffset(lines, traced, edit);
  let id = firstFreeId(drawing);
  const line = (contour: Contour): DrawnContour => ({
    id: id++,
    contour,
    layer: edit.layer,
    strokeColour: OFFSET_COLOUR,
    strokeWidthMm: null,
    fillColour: null,
    dash: null,
    shape: id,
  });
  const added = drawn.map(line);
  const { colour } = edit;
  const behind = colour
    ? drawn.map((contour) => ({
        ...line(contour),
        layer: `${edit.layer} colour`,
        strokeColour: null,
        fillColour: colour,
        isBehind: true,
      }))
    : [];
  const kept = edit.isOwn
    ? drawing.contours.filter((one) => !(wanted.has(one.id) && isOutline(one)))
    : drawing.contours;
  return { ...drawing, contours: [...kept, ...added, ...behind] };
}

/** The outlines around lines and what was traced of pictures. */
function drawOffset(
  lines: readonly DrawnContour[],
  traced: readonly Contour[],
  {
    byMm,
    isInked,
    keepsHoles,
    isOwn,
    keepsApart,
    closesMm = 0,
    backing = 'outline',
  }: Extract<DrawingEdit, { kind: 'offset' }>,
): readonly Contour[] {
  const outer = (rings: Rings) => (keepsHoles ? rings : fillHoles(rings));
  if (byMm === 0 && lines.length === 0) return keepsHoles ? traced : outermost(traced);
  const art = lines.filter(({ fillColour, strokeColour }) => fillColour !== null || strokeColour !== null);
  const covered = uniteRings([
    // An outline that is not art counts whole: what it encloses is kept.
    ...(isInked
      ? [...coverLines(art), ...(keepsHoles ? [] : encloseLines(lines.filter(isOutline)))]
      : encloseLines(lines)),
    ...fillRings(
      traced.map((contour) => flattenContour(contour)),
      true,
    ),
  ]);
  if (isOwn) return drawBorder(outer(covered), { byMm, closesMm, backing, keepsApart }).map(ringToContour);
  const rings = offsetRings(outer(closeGaps(covered, closesMm)), byMm);
  return outer(rings).map((ring) => ringToContour(ring));
}

/** Closed and not filled: the stroke of one drawn around something. */
function isOutline({ contour, fillColour }: DrawnContour): boolean {
  return contour.isClosed && fillColour === null;
}

/** Those that lie in no other. */
function outermost(contours: readonly Contour[]): readonly Contour[] {
  const all = contours.map((contour) => ({ contour, box: boundContour(contour), ring: ringOf(contour) }));
  return all
    .filter(
      (one) =>
        !all.some(
          (other) =>
            other !== one && encloses(other.box, one.box) && isInside(startOf(one.contour), other.ring),
        ),
    )
    .map(({ contour }) => contour);
}
