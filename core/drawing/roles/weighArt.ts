import { itemAt } from '#core/collections/itemAt.ts';
import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import type { LineGroup } from '#core/drawing/roles/lineRoles.ts';
import {
  areaOfBox,
  boundContour,
  encloses,
  growBox,
  middleOf,
  overlap,
  type BoxMm,
} from '#core/geometry/box.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { isInside } from '#core/geometry/polygon.ts';

/** Strokes wider than this are drawn to be seen, not followed: a point is 0.35 mm. Common practice, no source. */
const SEEN_MM = 0.4;
/** A share of the drawing's longer side that only a stroke to be seen is wide. */
const SEEN_SHARE = 0.012;
/** So many lines of a group tell what it is. */
const MOST_LINES = 60;
/** So many areas are looked at for what lies in them, the largest. */
const MOST_AREAS = 300;
/** What tells for art less what tells against it: from here it is art. */
const ENOUGH = 2;
/** The same where there are no coloured areas: a drawing of wide, round, open strokes. */
const ENOUGH_ALONE = 4;
/** Colours that cut lines are drawn in, since no art has them. Common practice, no source. */
const PURE = /^#(ff0000|00ff00|0000ff|ff00ff|00ffff)$/;
/** Looking needs no cutting tolerance, mm. */
const LOOK_MM = 0.5;
/** Most of a group's lines. */
const MOST = 0.5;
/** Areas of so many colours are a picture. */
const MANY_COLOURS = 4;
/** Strokes thinner than this are hairlines. */
const HAIR_MM = 0.1;
/** Lines around so much of the art go around all of it. */
const NEARLY_ALL = 0.6;

interface Area {
  readonly box: BoxMm;
  readonly line: DrawnContour;
}

/**
 * Whether stroked lines belong to a picture made of areas, as the drawn edges of a clip art do, by weighing what speaks
 * for it: gradients, wide strokes, round ends, areas of their own, lines that lie in areas or end in the air, many colours;
 * against it: hairlines, dashes, and lines that go around the art.
 *
 * @returns a function of a group
 * @example weighArt(drawing)({ key: '', layer: null, colour: '#ff0000', dash: null, isStroked: true, contourIds: [0] }) // false
 */
export function weighArt(drawing: Drawing): (group: LineGroup) => boolean {
  const areas = drawing.contours
    .filter(isArea)
    .map((line): Area => ({ line, box: boundContour(line.contour) }))
    .sort((a, b) => areaOfBox(b.box) - areaOfBox(a.box));
  const colours = new Set(areas.map(({ line }) => line.fillColour));
  const byId = new Map(drawing.contours.map((line) => [line.id, line]));
  const look = new Looker(areas.slice(0, MOST_AREAS));
  const seenMm = Math.max(SEEN_MM, SEEN_SHARE * Math.max(drawing.widthMm, drawing.heightMm));
  return ({ contourIds }) => {
    const lines = contourIds.slice(0, MOST_LINES).flatMap((id) => byId.get(id) ?? []);
    if (lines.length === 0) return false;
    const shareOf = (is: (line: DrawnContour) => boolean) => lines.filter(is).length / lines.length;
    const stroked = lines.filter(({ strokeColour }) => strokeColour !== null);
    const widthsAre = (is: (mm: number) => boolean) =>
      stroked.filter(({ strokeWidthMm }) => is(strokeWidthMm ?? 0)).length >= MOST * stroked.length;
    const tells = [
      [shareOf(({ isServed }) => isServed === true) >= MOST, 3],
      [drawing.isMoreThanLines === true, 1],
      [colours.size >= MANY_COLOURS, 1],
      [shareOf(isArea) >= MOST, 2],
      [shareOf(({ strokeColour }) => strokeColour !== null && PURE.test(strokeColour)) >= MOST, -2],
      [widthsAre((mm) => mm > SEEN_MM), 1],
      [widthsAre((mm) => mm >= seenMm), 1],
      [shareOf(({ paint }) => paint?.cap === 'round' || paint?.join === 'round') >= MOST, 1],
      [shareOf(({ contour }) => !contour.isClosed) >= MOST, 1],
      [shareOf((line) => look.liesInArea(line)) >= MOST, 1],
      [widthsAre((mm) => mm <= HAIR_MM), -2],
      [shareOf(({ dash }) => dash !== null) >= MOST, -1],
      [look.goAround(lines.filter(({ fillColour }) => fillColour === null)), -3],
    ] as const;
    return (
      tells.reduce((sum, [holds, weight]) => (holds ? sum + weight : sum), 0) >=
      (areas.length > 0 ? ENOUGH : ENOUGH_ALONE)
    );
  };
}

class Looker {
  private readonly rings = new Map<DrawnContour, ReturnType<typeof flattenContour>>();

  constructor(private readonly areas: readonly Area[]) {}

  liesInArea(line: DrawnContour): boolean {
    const box = boundContour(line.contour);
    const way = this.ringOf(line);
    const at = line.contour.isClosed ? middleOf(box) : itemAt(way, way.length >> 1);
    return this.areas.some(
      (area) => area.line !== line && overlap(area.box, box) && isInside(at, this.ringOf(area.line)),
    );
  }

  /** Whether closed lines have nearly all of the art in them: lines to cut along do. */
  goAround(lines: readonly DrawnContour[]): boolean {
    const outlines = lines
      .filter(({ contour }) => contour.isClosed)
      .map((line) => {
        // The drawn edge of an area lies on it; a line to cut along stands off, or is thin.
        const widthMm = line.strokeWidthMm ?? 0;
        return {
          line,
          box: growBox(boundContour(line.contour), widthMm > SEEN_MM ? -widthMm : LOOK_MM / 10),
        };
      });
    const held = this.areas.filter((area) =>
      outlines.some(
        ({ line, box }) => encloses(box, area.box) && isInside(middleOf(area.box), this.ringOf(line)),
      ),
    );
    return sizeOf(held) >= NEARLY_ALL * sizeOf(this.areas) && held.length > 0;
  }

  private ringOf(line: DrawnContour): ReturnType<typeof flattenContour> {
    const known = this.rings.get(line);
    if (known) return known;
    const ring = flattenContour(line.contour, LOOK_MM);
    this.rings.set(line, ring);
    return ring;
  }
}

/** Filled, and not just for want of being told otherwise: black is what SVG fills with. */
function isArea({ fillColour, strokeColour }: DrawnContour): boolean {
  return fillColour !== null && (strokeColour === null || fillColour !== '#000000');
}

function sizeOf(areas: readonly Area[]): number {
  return areas.reduce((sum, { box }) => sum + areaOfBox(box), 0);
}
