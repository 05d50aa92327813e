import { factsOf } from '#core/stack/families/families.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import type { Stack } from '#core/stack/layer.ts';
import type { Machine } from '#core/station/machine.ts';
import type { LoadedSheet } from '#core/station/station.ts';

/** How a roll-fed machine should hold a sheet, each with its reason; empty for what the machine has not. */
export interface HoldAdvice {
  readonly words: string;
  readonly reason: string;
}

/** Above this a sheet is thick, below it thin, mm. Common practice, no source. */
const THICK_MM = 0.35;
const THIN_MM = 0.18;
/** Narrower than this share of the bed, holes of the suction lie open beside the sheet. */
const NARROW_SHARE = 0.75;

/**
 * Whether a sheet is thicker than rollers grip well in their lowest position.
 *
 * @throws AppError `badInput` when the stack cannot be
 * @example isThick(station.loaded.condition.stack) // false
 */
export function isThick(stack: Stack): boolean {
  return measureStack(stack).totalUm / 1000 > THICK_MM;
}

/**
 * Pinch and suction for a sheet on a roll-fed machine: low pinch nearly always, more for what is thick or slippery; weak
 * suction for what is thin, strong for what is heavy, and open holes beside a narrow sheet covered.
 *
 * @param widthMm of the sheet as it lies
 * @throws AppError `badInput` when the stack cannot be
 * Common practice, no source (T23, T31).
 * @example adviseHold({ ...machine, kind: 'matFed' }, station.loaded, 200) // []
 */
export function adviseHold(
  {
    kind,
    pinchPositions,
    hasSuction,
    bedWidthMm,
  }: Pick<Machine, 'kind' | 'pinchPositions' | 'hasSuction' | 'bedWidthMm'>,
  { material, condition }: Pick<LoadedSheet, 'material' | 'condition'>,
  widthMm: number,
): readonly HoldAdvice[] {
  if (kind !== 'rollFed') return [];
  const totalMm = measureStack(condition.stack).totalUm / 1000;
  const { isSlick } = factsOf(material.family);
  const isHeavy = isThick(condition.stack);
  const why = isHeavy ? `${totalMm.toFixed(2)} mm is thick` : isSlick ? 'its liner is slippery' : '';
  const advice: HoldAdvice[] = [];
  const position = why ? pinchPositions[Math.floor(pinchPositions.length / 2)] : pinchPositions[0];
  if (position !== undefined) {
    advice.push({
      words: `Pinch rollers at ${position}, one over each edge of the sheet.`,
      reason: why || 'more leaves marks and gains nothing on a thin sheet',
    });
  }
  if (hasSuction) {
    const strength = totalMm < THIN_MM ? 'weak' : isHeavy ? 'strong' : 'as usual';
    advice.push({
      words: `Suction ${strength}.`,
      reason:
        strength === 'weak'
          ? 'a thin sheet is drawn into the holes and bunches'
          : strength === 'strong'
            ? 'a heavy sheet lifts off a weak one'
            : 'it holds this sheet flat',
    });
    if (widthMm < NARROW_SHARE * bedWidthMm) {
      advice.push({
        words: 'Cover the open suction holes beside the sheet with tape.',
        reason: 'the air goes where nothing lies',
      });
    }
  }
  return advice;
}
