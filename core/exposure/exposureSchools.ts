import { chooseExposure } from '#core/exposure/chooseExposure.ts';
import type { Stack } from '#core/stack/layer.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import { describeExposure, isSetByHand, snapExposureMm, type DepthScale } from '#core/units/depthScale.ts';

/** One way in which operators set the exposure. */
export interface ExposureSchool {
  readonly id: 'figure' | 'stackDeep' | 'doubledSheet' | 'foldedCorner';
  readonly name: string;
  /** Where it ends, mm, on the holder's steps. */
  readonly exposureMm: number;
  /** What the hand does on this holder: turns, dial or measured. */
  readonly onHolder: string;
  readonly steps: readonly string[];
  /** What to mind; `null` where no hand presses a blade. */
  readonly caution: string | null;
  readonly isDefault: boolean;
  /** Said when the blade or its holder cannot show so much. */
  readonly limit: string | null;
}

const HAND_CAUTION =
  'Pressing a blade by hand can snap the tip and cut you. Cut on a resistant pad, away from the other hand, and do not bear down.';
/** A marked sheet below: the tip goes so far into it. */
const MARK_MM = 0.03;

/**
 * The exposure by each school, from the stack: the fixed figure is the default; by eye means as deep as the stack is
 * thick; the two hand tests end near a figure too, and carry their caution.
 *
 * @returns none where no hand sets it
 * @param reachMm how much of the blade can leave its holder; `null` when nobody measured
 * @throws AppError `badInput` when the stack cannot be
 * @example listExposureSchools(film, turns, null).filter(({ isDefault }) => isDefault).length // 1
 */
export function listExposureSchools(
  stack: Stack,
  scale: DepthScale,
  reachMm: number | null,
): readonly ExposureSchool[] {
  if (!isSetByHand(scale)) return [];
  const { totalUm } = measureStack(stack);
  const total = totalUm / 1000;
  const school = (
    id: ExposureSchool['id'],
    name: string,
    wantedMm: number,
    steps: readonly string[],
    caution: string | null = null,
  ): ExposureSchool => {
    const exposureMm = snapExposureMm(wantedMm, scale);
    return {
      id,
      name,
      exposureMm,
      onHolder: describeExposure(exposureMm, scale),
      steps,
      caution,
      isDefault: id === 'figure',
      limit: limitOf(exposureMm, wantedMm, reachMm),
    };
  };
  const figure = chooseExposure(stack, scale);
  return [
    school('figure', 'A fixed figure; force decides the depth', figure.exposureMm, [
      `From the stack: ${figure.reason}.`,
      'Turn or dial to it once and leave it; change the force, not the exposure.',
    ]),
    school('stackDeep', 'By eye: as deep as the whole stack is thick', total, [
      `Hold the edge of the sheet beside the tip: ${total.toFixed(2)} mm of blade shows.`,
    ]),
    school(
      'doubledSheet',
      'By hand on a doubled sheet',
      total + MARK_MM,
      [
        'Lay two sheets on a cutting pad, hold the holder upright and draw one short line.',
        'Right when the top sheet is cut and the lower one is just marked.',
      ],
      HAND_CAUTION,
    ),
    school(
      'foldedCorner',
      'By hand on a corner folded in three',
      total + MARK_MM,
      [
        'Fold a corner in three and slice across the fold.',
        'Right when the top layer parts and the second is just marked. If it does not part, a quarter turn more.',
      ],
      HAND_CAUTION,
    ),
  ];
}

function limitOf(exposureMm: number, wantedMm: number, reachMm: number | null): string | null {
  if (reachMm !== null && exposureMm > reachMm) {
    return `this blade reaches ${reachMm.toFixed(2)} mm out of its holder`;
  }
  return exposureMm < wantedMm - 0.06 ? 'the holder shows no more' : null;
}
