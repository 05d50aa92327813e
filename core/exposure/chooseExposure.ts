import { ROUNDING } from '#core/units/rounding.ts';
import type { Stack } from '#core/stack/layer.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import { depthStepMm, snapExposureMm, type DepthScale } from '#core/units/depthScale.ts';

/** Lowest and highest exposure for self-adhesive film, mm. Common practice, no source (8 to 20 mil). */
export const FILM_EXPOSURE_MM = { low: 0.2, high: 0.5 } as const;

/** Blade beyond the depth of the cut, mm, so that the holder's foot does not carry the blade. Common practice. */
const CLEARANCE_MM = 0.15;

/** An exposure with its reason in words. */
export interface ExposureChoice {
  readonly exposureMm: number;
  readonly reason: string;
}

/**
 * Exposure by the first school: a fixed figure from the whole stack, so that force alone decides the depth. One figure
 * serves every cut of a sheet that one blade makes in one holder: nobody sets a blade anew in the middle of a sheet.
 *
 * Film stays inside 0.2 to 0.5 mm, unless its stack is thicker; the figure is snapped to the holder's steps, upwards,
 * because too little never gets through.
 *
 * @throws AppError `badInput` when the stack cannot be
 * @example chooseExposure(film, turns).exposureMm // 0.4375
 */
export function chooseExposure(stack: Stack, scale: DepthScale): ExposureChoice {
  const { totalUm, isLayered } = measureStack(stack);
  const totalMm = totalUm / 1000;
  const wanted = totalMm + CLEARANCE_MM;
  const { low, high } = FILM_EXPOSURE_MM;
  const held = isLayered ? Math.min(Math.max(wanted, low), Math.max(high, totalMm)) : wanted;
  const step = depthStepMm(scale);
  const exposureMm = snapExposureMm(Math.ceil(held / step - ROUNDING) * step, scale);
  const words = `${totalMm.toFixed(2)} mm of stack`;
  if (scale.kind === 'fixed') return { exposureMm, reason: 'the housing is fixed' };
  if (exposureMm < totalMm) return { exposureMm, reason: `${words}: the holder shows no more` };
  return { exposureMm, reason: `${words} plus ${(exposureMm - totalMm).toFixed(2)} mm clearance` };
}
