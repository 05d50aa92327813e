import { ROUNDING } from '#core/units/rounding.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
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
 * Exposure by the first school: a fixed figure from the stack, so that force alone decides the depth.
 *
 * A kiss on film stays inside 0.2 to 0.5 mm; a through cut shows the whole stack plus a clearance. The figure is
 * snapped to the holder's steps, upwards, because too little never gets through.
 *
 * @throws AppError `badInput` when the stack cannot be
 * @example chooseExposure(film, 'kiss', turns).exposureMm // 0.3125
 */
export function chooseExposure(stack: Stack, operation: DepthOperation, scale: DepthScale): ExposureChoice {
  const { toLinerUm, totalUm, isLayered } = measureStack(stack);
  const depthMm = (operation === 'through' ? totalUm : operation === 'kiss' ? toLinerUm : totalUm / 2) / 1000;
  const wanted = depthMm + CLEARANCE_MM;
  const isFilm = isLayered && operation === 'kiss';
  const held = isFilm ? Math.min(Math.max(wanted, FILM_EXPOSURE_MM.low), FILM_EXPOSURE_MM.high) : wanted;
  const step = depthStepMm(scale);
  const exposureMm = snapExposureMm(Math.ceil(held / step - ROUNDING) * step, scale);
  const depthWords = `${depthMm.toFixed(2)} mm to cut`;
  if (exposureMm < depthMm) return { exposureMm, reason: `${depthWords}: the holder shows no more` };
  return { exposureMm, reason: `${depthWords} plus ${(exposureMm - depthMm).toFixed(2)} mm clearance` };
}
