import type { ScaleReading } from '#core/units/fitForceScale.ts';

/** The calibration in force, as the page of a machine shows it. */
export interface CalibrationView {
  readonly id: number;
  readonly readings: readonly ScaleReading[];
  readonly author: string;
  readonly at: string;
}
