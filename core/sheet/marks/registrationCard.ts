import { strokeFigures } from '#core/dialIn/strokeFigures.ts';
import type { WrittenLine } from '#core/drawing/svg/writeSvg.ts';
import { AppError } from '#core/errors/appError.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import { fitSimilarity } from '#core/geometry/fitSimilarity.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { ShiftReading } from '#core/sheet/marks/registration.ts';

/** Distance between printed lines and between cut ones, mm: a line that meets tells the shift in tenths. */
const PRINTED_MM = 1.7;
const CUT_MM = 1.6;
/** Lines on each side of the middle: the card reads shifts up to so many tenths of a mm, as far as a normal day goes. */
const LINES = 16;
/** The middle lines are told by their length: the side to which they part is the side of the shift. */
const ZERO_MM = 8;
const LONG_MM = 5;
const SHORT_MM = 3;
const FIGURE_MM = 1.8;
/** From the edge of the usable area to a row's middle. */
const ROOM_MM = 8;

/** Each round leaves less than half of the scale still to be found. */
const ROUNDS = 25;

/** One row of two scales face to face: its zero, and whether it reads to the side (x) or down (y). */
export interface Vernier {
  readonly at: PointMm;
  readonly axis: 'x' | 'y';
  readonly corner: (typeof CARD_CORNERS)[number];
}

export const CARD_CORNERS = ['top left', 'top right', 'bottom left', 'bottom right'] as const;

/** What a card can read, mm to either side. */
export const CARD_REACH_MM = (PRINTED_MM - CUT_MM) * LINES;

/**
 * Where the verniers of a card lie: two at each corner of an area, one for each direction, their zeros given.
 *
 * @param area free of marks, mm
 * @throws AppError `badInput` for an area so small that rows would meet
 * @example placeVerniers({ minX: 20, minY: 20, maxX: 190, maxY: 270 }).length // 8
 */
export function placeVerniers(area: BoxMm): readonly Vernier[] {
  const half = LINES * PRINTED_MM + 1;
  const least = 4 * half + ZERO_MM;
  if (Math.min(area.maxX - area.minX, area.maxY - area.minY) < least) {
    throw new AppError('badInput', `a card needs ${Math.ceil(least)} mm free of marks both ways`);
  }
  return CARD_CORNERS.flatMap((corner) => {
    const isLeft = corner.endsWith('left');
    const isTop = corner.startsWith('top');
    const outerX = isLeft ? area.minX + ROOM_MM : area.maxX - ROOM_MM;
    const outerY = isTop ? area.minY + ROOM_MM : area.maxY - ROOM_MM;
    const inwards = half + 2 * ZERO_MM;
    return [
      {
        corner,
        axis: 'x' as const,
        at: { x: isLeft ? area.minX + half : area.maxX - half, y: outerY },
      },
      {
        corner,
        axis: 'y' as const,
        at: { x: outerX, y: isTop ? outerY + inwards : outerY - inwards },
      },
    ];
  });
}

/**
 * The lines of a card: printed scales as art, cut ones kissed. Where a cut line goes on straight into a printed one, the
 * printed figure there is the shift of the cut in tenths of a mm: to the right or downwards, or, after a bar, to the left
 * or upwards. Where two pairs meet, the middle lines tell the side.
 *
 * @example drawVerniers(placeVerniers({ minX: 20, minY: 20, maxX: 190, maxY: 270 })).length > 100 // true
 */
export function drawVerniers(verniers: readonly Vernier[]): readonly WrittenLine[] {
  return verniers.flatMap(({ at, axis }) => {
    const point = (along: number, across: number): PointMm =>
      axis === 'x' ? { x: at.x + along, y: at.y + across } : { x: at.x + across, y: at.y + along };
    const steps = Array.from({ length: 2 * LINES + 1 }, (_, index) => index - LINES);
    const printed = steps.map((step): WrittenLine => ({
      role: 'art',
      points: [point(step * PRINTED_MM, -lengthOf(step)), point(step * PRINTED_MM, 0)],
    }));
    const cut = steps.map((step): WrittenLine => ({
      role: 'kiss',
      points: [point(step * CUT_MM, 0), point(step * CUT_MM, lengthOf(step))],
    }));
    const figures = steps
      .filter((step) => step % 5 === 0)
      .flatMap((step) => {
        const middle = point(step * PRINTED_MM, -lengthOf(step) - (axis === 'x' ? FIGURE_MM + 0.6 : 0.6));
        const corner =
          axis === 'x'
            ? { x: middle.x - 0.8, y: middle.y }
            : { x: middle.x - FIGURE_MM - 1.2, y: middle.y - FIGURE_MM / 2 };
        const strokes = strokeFigures(String(Math.abs(step)), corner, FIGURE_MM);
        // A bar before the figure: the shift is to the left or upwards.
        const minus = [
          { x: corner.x - 1.1, y: corner.y + FIGURE_MM / 2 },
          { x: corner.x - 0.4, y: corner.y + FIGURE_MM / 2 },
        ];
        return (step < 0 ? [minus, ...strokes] : strokes).map((points): WrittenLine => ({
          role: 'art',
          points,
        }));
      });
    return [...printed, ...figures, ...cut];
  });
}

/** What an eye read off one corner, mm. */
export type CardReading = Readonly<Record<(typeof CARD_CORNERS)[number], PointMm>>;

/**
 * The shift at each corner of a card. A row that reads sideways lies further in than its corner: what the sheet's scale
 * makes of that way is added.
 *
 * @returns one reading a corner, in the order of {@link CARD_CORNERS}
 * @example readCard(placeVerniers({ minX: 20, minY: 20, maxX: 190, maxY: 270 }), { 'top left': { x: 0.2, y: 0 }, 'top right': { x: 0.2, y: 0 }, 'bottom left': { x: 0.2, y: 0 }, 'bottom right': { x: 0.2, y: 0 } })[0].shift // { x: 0.2, y: 0 }
 */
export function readCard(verniers: readonly Vernier[], read: CardReading): readonly ShiftReading[] {
  const rows = CARD_CORNERS.map((corner) => {
    const [side, down] = (['x', 'y'] as const).map(
      (axis) => (verniers.find((row) => row.corner === corner && row.axis === axis) as Vernier).at,
    ) as [PointMm, PointMm];
    return { corner, side, down, at: { x: down.x, y: side.y } };
  });
  let growth = 0;
  let readings: readonly ShiftReading[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    readings = rows.map(({ corner, side, down, at }) => ({
      at,
      shift: {
        x: read[corner].x + growth * (at.x - side.x),
        y: read[corner].y + growth * (at.y - down.y),
      },
    }));
    const landed = readings.map(({ at, shift }) => ({ x: at.x + shift.x, y: at.y + shift.y }));
    growth =
      fitSimilarity(
        readings.map(({ at }) => at),
        landed,
      ).scale - 1;
  }
  return readings;
}

function lengthOf(step: number): number {
  if (step === 0) return ZERO_MM;
  return step % 5 === 0 ? LONG_MM : SHORT_MM;
}
