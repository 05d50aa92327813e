import { AppError } from '#core/errors/appError.ts';
import { mapPoint, type Affine } from '#core/geometry/affine.ts';
import { fitSimilarity, type FittedSimilarity } from '#core/geometry/fitSimilarity.ts';
import { meanPoint, type PointMm } from '#core/geometry/point.ts';
import { USUAL_ERROR, type RegistrationError } from '#core/sheet/edgeRisk.ts';

/** What was read at one place of a sheet: how far the cut lies from the print, mm, x to the right, y down. */
export interface ShiftReading {
  readonly at: PointMm;
  readonly shift: PointMm;
}

/** One sheet whose shift was read. */
export interface RegistrationSheet {
  readonly readings: readonly ShiftReading[];
  /** What the file already corrected when this sheet was cut. */
  readonly corrected: Affine;
}

/** A single reading off a vernier is good to about this, mm. */
const READING_MM = 0.05;
/** The habit counts like so many sheets, until measured ones outnumber it. */
const HABIT_SHEETS = 3;
/** Readings beyond this are misread or a sheet that slipped, mm. */
export const MOST_SHIFT_MM = 8;

/**
 * Where cuts land for points that were printed: turn, scale and shift fitted over all readings, as if nothing had been
 * corrected.
 *
 * @throws AppError `badInput` for no readings, or one beyond {@link MOST_SHIFT_MM}
 * @example fitRegistration([{ readings: [{ at: { x: 0, y: 0 }, shift: { x: 0.2, y: 0 } }, { at: { x: 100, y: 0 }, shift: { x: 0.2, y: 0 } }], corrected: IDENTITY }]).scale // 1
 */
export function fitRegistration(sheets: readonly RegistrationSheet[]): FittedSimilarity {
  const pairs = sheets.flatMap(uncorrected);
  for (const { shift } of pairs) {
    if (Math.hypot(shift.x, shift.y) <= MOST_SHIFT_MM + 4) continue;
    throw new AppError(
      'badInput',
      `a shift of ${Math.hypot(shift.x, shift.y).toFixed(1)} mm is more than a sheet can be off and still be read`,
    );
  }
  const [first] = pairs;
  const isOnePlace = pairs.every(({ at }) => at.x === first?.at.x && at.y === first.at.y);
  if (first && isOnePlace) return shiftOnly(meanPoint(pairs.map(({ shift }) => shift)));
  return fitSimilarity(
    pairs.map(({ at }) => at),
    pairs.map(({ at, shift }) => ({ x: at.x + shift.x, y: at.y + shift.y })),
  );
}

/**
 * What is believed of a machine's shift under the correction in force: the mean over all readings, and the spread from
 * sheet to sheet and place to place, drawn towards the habit while few sheets were read.
 *
 * @param correction what the file corrects from now on
 * @returns the habit when no sheet was read
 * @example judgeRegistration([], [1, 0, 0, 1, 0, 0]).source // 'habit'
 */
export function judgeRegistration(
  sheets: readonly RegistrationSheet[],
  correction: Affine,
): RegistrationError {
  const read = sheets.filter(({ readings }) => readings.length > 0);
  if (read.length === 0) return USUAL_ERROR;
  const shifts = read.map((sheet) =>
    uncorrected(sheet).map(({ at, shift }) => {
      const landing = mapPoint(correction, { x: at.x, y: at.y });
      return { x: shift.x + landing.x - at.x, y: shift.y + landing.y - at.y };
    }),
  );
  // Readings of one sheet share its fate: every sheet has one vote for the mean, whatever was read of it.
  const perSheet = shifts.map(meanPoint);
  const mean = meanPoint(perSheet);
  const squares = shifts.reduce(
    (sum, places) =>
      sum +
      places.reduce((own, { x, y }) => own + ((x - mean.x) ** 2 + (y - mean.y) ** 2) / 2 / places.length, 0),
    0,
  );
  const habit = HABIT_SHEETS * USUAL_ERROR.sdMm ** 2;
  const variance = (habit + squares) / (HABIT_SHEETS + read.length);
  return {
    meanXMm: mean.x,
    meanYMm: mean.y,
    sdMm: Math.max(READING_MM, Math.sqrt(variance)),
    source: 'measured',
  };
}

/** Read at one place only, a sheet tells of a shift, but of no turn and no scale. */
function shiftOnly(shift: PointMm): FittedSimilarity {
  return { scale: 1, rotationRad: 0, shift, affine: [1, 0, 0, 1, shift.x, shift.y], restMm: 0 };
}

/**
 * The map a file must apply so that cuts land on the print: the fitted one backwards.
 *
 * @example invertSimilarity({ scale: 1, rotationRad: 0, affine: [1, 0, 0, 1, 2, 3] }).slice(4) // [-2, -3]
 */
export function invertSimilarity({ scale, rotationRad, affine: [, , , , e, f] }: FittedSimilarity): Affine {
  const cos = Math.cos(rotationRad) / scale;
  const sin = Math.sin(rotationRad) / scale;
  return [cos, -sin, sin, cos, -(cos * e + sin * f), -(-sin * e + cos * f)];
}

/** Readings as they would have been without the correction that was in force: to first order, for shifts are small. */
function uncorrected({ readings, corrected }: RegistrationSheet): readonly ShiftReading[] {
  return readings.map(({ at, shift }) => {
    const moved = mapPoint(corrected, at);
    return { at, shift: { x: shift.x - (moved.x - at.x), y: shift.y - (moved.y - at.y) } };
  });
}
