import type { Drawing } from '#core/drawing/drawing.ts';
import { roleOf, type GivenRoles } from '#core/drawing/roles/lineRoles.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import { hasPrint } from '#core/job/hasPrint.ts';
import type { LaidJob } from '#core/job/layOutJob.ts';

/** A patch of ink that test pieces are cut on, so that a test meets what the job will meet (T27). */
export interface TestPatch {
  readonly box: BoxMm;
  /** Heaviest ink of the art, #rrggbb. */
  readonly colour: string;
}

/** Where art is a picture nobody has looked into, the heaviest ink there can be. */
const FULL_INK = '#000000';
/** Weights of red, green and blue in how light a colour is. Source: ITU-R BT.709. */
const LIGHTNESS = [0.2126, 0.7152, 0.0722] as const;

/**
 * The patch of a job that prints and keeps a corner for test cuts; `null` where nothing is printed or none is kept.
 *
 * @example patchOf({ drawing, testCorner: null }, given) // null
 */
export function patchOf(
  { drawing, testCorner }: Pick<LaidJob, 'drawing' | 'testCorner'>,
  given: GivenRoles,
): TestPatch | null {
  if (!testCorner || !hasPrint(drawing, given)) return null;
  return { box: testCorner, colour: heaviestInk(drawing, given) };
}

/** The darkest colour of the art; where pictures are in it, full ink. */
function heaviestInk({ images, contours }: Drawing, given: GivenRoles): string {
  if (images.length > 0) return FULL_INK;
  const colours = contours
    .filter((line) => roleOf(line, given) === 'art')
    .flatMap(({ fillColour, strokeColour }) => [fillColour, strokeColour])
    .filter((colour) => colour !== null);
  return colours.reduce(
    (darkest, one) => (lightness(one) < lightness(darkest) ? one : darkest),
    colours[0] ?? FULL_INK,
  );
}

function lightness(colour: string): number {
  return LIGHTNESS.reduce(
    (sum, weight, channel) => sum + weight * parseInt(colour.slice(1 + 2 * channel, 3 + 2 * channel), 16),
    0,
  );
}
