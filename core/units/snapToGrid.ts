import { ROUNDING } from '#core/units/rounding.ts';
/** A scale that can be set only in steps from its lowest value. */
export interface StepGrid {
  readonly min: number;
  readonly max: number;
  readonly step: number;
}

/** The nearest value that can be set, inside `min..max`. @example snapToGrid(13, { min: 10, max: 100, step: 5 }) // 15 */
export function snapToGrid(value: number, { min, max, step }: StepGrid): number {
  const nearest = Math.round((value - min) / step);
  return gridValue(Math.min(lastStep({ min, max, step }), Math.max(0, nearest)), min, step);
}

/**
 * Every value that can be set, ascending.
 *
 * @example listGrid({ min: 1, max: 3, step: 1 }) // [1, 2, 3]
 */
export function listGrid({ min, max, step }: StepGrid): readonly number[] {
  return Array.from({ length: lastStep({ min, max, step }) + 1 }, (_, index) => gridValue(index, min, step));
}

function lastStep({ min, max, step }: StepGrid): number {
  return Math.floor((max - min) / step + ROUNDING);
}

/** Takes away the dust that steps such as 0.1 leave behind. */
function gridValue(steps: number, min: number, step: number): number {
  return Number((min + steps * step).toFixed(6));
}
