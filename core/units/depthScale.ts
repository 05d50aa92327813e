import { ROUNDING } from '#core/units/rounding.ts';
import { AppError } from '#core/errors/appError.ts';

/** Turns this near to an eighth are told in eighths. */
const OFF_AN_EIGHTH = 1e-6;
/**
 * How exposure is set on a machine: by turning a threaded holder from flush, on a numbered dial, or read in mm; by the
 * machine itself; or not at all, in a housing that lets the tip stand out by `maxMm` and no other.
 * Elsewhere `maxMm` is the most the holder lets the tip stand out.
 */
export type DepthScale =
  | { readonly kind: 'turns'; readonly mmPerTurn: number; readonly turnStep: number; readonly maxMm: number }
  | { readonly kind: 'dial'; readonly mmPerStep: number; readonly maxMm: number }
  | { readonly kind: 'millimetres'; readonly stepMm: number; readonly maxMm: number }
  | { readonly kind: 'automatic'; readonly stepMm: number; readonly maxMm: number }
  | { readonly kind: 'fixed'; readonly maxMm: number };

/**
 * Whether hands set the exposure: a machine that sets it, and a fixed housing, ask for no step.
 *
 * @example isSetByHand({ kind: 'fixed', maxMm: 0.5 }) // false
 */
export function isSetByHand({ kind }: DepthScale): boolean {
  return kind !== 'automatic' && kind !== 'fixed';
}

/**
 * The exposure in mm that one step of the scale moves.
 *
 * @example depthStepMm({ kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1 }) // 0.0625
 */
export function depthStepMm(scale: DepthScale): number {
  switch (scale.kind) {
    case 'turns':
      return scale.mmPerTurn * scale.turnStep;
    case 'dial':
      return scale.mmPerStep;
    case 'millimetres':
    case 'automatic':
      return scale.stepMm;
    case 'fixed':
      return scale.maxMm;
  }
}

/**
 * The nearest exposure the holder can be set to, in mm, at least one step and at most `maxMm`.
 *
 * @example snapExposureMm(0.34, { kind: 'millimetres', stepMm: 0.1, maxMm: 1 }) // 0.3
 */
export function snapExposureMm(exposureMm: number, scale: DepthScale): number {
  const step = depthStepMm(scale);
  const most = Math.floor(scale.maxMm / step + ROUNDING);
  return Number((Math.min(most, Math.max(1, Math.round(exposureMm / step))) * step).toFixed(4));
}

/**
 * @throws AppError `outOfRange` when the holder cannot show that much blade
 * @example requireExposureInRange(0.5, turns) === undefined // true
 */
export function requireExposureInRange(exposureMm: number, scale: DepthScale): void {
  if (Number.isFinite(exposureMm) && exposureMm > 0 && exposureMm <= scale.maxMm + ROUNDING) return;
  throw new AppError(
    'outOfRange',
    `exposure ${exposureMm} mm is outside what the holder can do: above 0, at most ${scale.maxMm} mm`,
    { exposureMm, maxMm: scale.maxMm },
  );
}

/**
 * What the hand does to set an exposure.
 *
 * @example describeExposure(0.35, { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1 }) // '¾ turn from flush'
 */
export function describeExposure(exposureMm: number, scale: DepthScale): string {
  switch (scale.kind) {
    case 'turns':
      return `${nameTurns(exposureMm / scale.mmPerTurn, scale.turnStep)} from flush`;
    case 'dial':
      return `dial ${Math.max(1, Math.round(exposureMm / scale.mmPerStep))}`;
    case 'millimetres':
      return 'measured at the tip';
    case 'automatic':
      return 'the machine sets it';
    case 'fixed':
      return 'fixed in its housing';
  }
}

const EIGHTHS = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞'];

function nameTurns(turns: number, turnStep: number): string {
  const snapped = Math.max(turnStep, Math.round(turns / turnStep) * turnStep);
  const whole = Math.floor(snapped + ROUNDING);
  const eighths = (snapped - whole) * 8;
  if (Math.abs(eighths - Math.round(eighths)) > OFF_AN_EIGHTH) return `${snapped.toFixed(2)} turns`;
  const fraction = EIGHTHS[Math.round(eighths)] ?? '';
  const word = snapped > 1 ? 'turns' : 'turn';
  return `${whole > 0 ? whole : ''}${fraction} ${word}`;
}
