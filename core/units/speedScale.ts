import { snapToGrid } from '#core/units/snapToGrid.ts';

/** How a machine counts speed. `mmPerSPerUnit` turns its own figure into mm/s. */
export interface SpeedScale {
  readonly unit: 'mm/s' | 'cm/s' | 'level';
  readonly min: number;
  readonly max: number;
  readonly step: number;
  readonly mmPerSPerUnit: number;
}

/**
 * Speed in mm/s of a figure on the scale.
 *
 * @example speedToMmPerS(10, { unit: 'cm/s', min: 1, max: 40, step: 1, mmPerSPerUnit: 10 }) // 100
 */
export function speedToMmPerS(speed: number, scale: SpeedScale): number {
  return speed * scale.mmPerSPerUnit;
}

/**
 * The settable figure nearest to a speed, held inside the scale.
 *
 * @example mmPerSToSpeed(100, { unit: 'cm/s', min: 1, max: 40, step: 1, mmPerSPerUnit: 10 }) // 10
 */
export function mmPerSToSpeed(speedMmPerS: number, scale: SpeedScale): number {
  return snapSpeed(speedMmPerS / scale.mmPerSPerUnit, scale);
}

/**
 * The nearest figure on the step grid inside `min..max`.
 *
 * @example snapSpeed(33.4, { unit: 'mm/s', min: 10, max: 400, step: 10, mmPerSPerUnit: 1 }) // 30
 */
export function snapSpeed(speed: number, scale: SpeedScale): number {
  return snapToGrid(speed, scale);
}
