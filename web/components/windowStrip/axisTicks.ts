import { forceToGf, snapForce, type ForceScale } from '#core/units/forceScale.ts';

/** A labelled place on the strip, from 0 (left) to 1. */
export interface Tick {
  readonly share: number;
  readonly label: string;
}

const MANTISSAS = [1, 1.2, 1.5, 2, 2.5, 3, 4, 5, 6, 8];
const CLOSEST = 0.085;

/** Where a force lies on a logarithmic axis, held inside it. */
export function shareOnAxis(
  forceGf: number,
  axis: { readonly fromGf: number; readonly toGf: number },
): number {
  const share = Math.log(forceGf / axis.fromGf) / Math.log(axis.toGf / axis.fromGf);
  return Math.min(1, Math.max(0, share));
}

/** Round values of the machine's own scale along the axis, far enough apart to be read. */
export function axisTicks(
  scale: ForceScale,
  axis: { readonly fromGf: number; readonly toGf: number },
  closest = CLOSEST,
): readonly Tick[] {
  const candidates = [1, 10, 100, 1000].flatMap((power) => MANTISSAS.map((mantissa) => mantissa * power));
  const ticks: Tick[] = [];
  for (const value of candidates) {
    if (value < scale.min || value > scale.max || snapForce(value, scale) !== value) continue;
    const forceGf = forceToGf(value, scale);
    if (forceGf < axis.fromGf || forceGf > axis.toGf) continue;
    const share = shareOnAxis(forceGf, axis);
    const last = ticks.at(-1);
    if (last && share - last.share < closest) continue;
    ticks.push({ share, label: String(value) });
  }
  return ticks;
}
