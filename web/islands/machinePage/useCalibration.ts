import { useMemo, useState } from 'react';
import type { Machine } from '#core/station/machine.ts';
import { fitForceScale, type FittedScale, type ScaleReading } from '#core/units/fitForceScale.ts';
import { callApi } from '#web/islands/shared/callApi.ts';

/** A reading as it is typed: empty until somebody says it. */
export interface TypedReading {
  readonly force: string;
  readonly grams: string;
}

/** What typed readings amount to: nothing yet, a curve, or a reason why they cannot be. */
export type Attempt =
  | { readonly kind: 'none' }
  | { readonly kind: 'fitted'; readonly fitted: FittedScale; readonly readings: readonly ScaleReading[] }
  | { readonly kind: 'refused'; readonly reason: string };

/** The state of measuring a scale: readings, the curve through them as they are typed, keeping it. */
export function useCalibration(machine: Machine, kept: readonly ScaleReading[]) {
  const { min, max, step } = machine.forceScale;
  const start =
    kept.length > 0
      ? kept.map(({ force, grams }) => ({ force: String(force), grams: String(grams) }))
      : [0.1, 0.3, 0.5, 0.75, 1].map((share) => ({
          force: String(min + Math.round(((max - min) * share) / step) * step),
          grams: '',
        }));
  const [typed, setTyped] = useState<readonly TypedReading[]>(start);
  const [error, setError] = useState<unknown>(null);
  const attempt = useMemo(() => tryFit(typed, machine), [typed, machine]);
  const keep = async () => {
    if (attempt.kind !== 'fitted') return;
    setError(null);
    try {
      await callApi(`/api/machines/${machine.id}/calibrations`, 'POST', { readings: attempt.readings });
      location.reload();
    } catch (refusal) {
      setError(refusal);
    }
  };
  const remove = async (id: number) => {
    try {
      await callApi(`/api/machines/${machine.id}/calibrations/${id}`, 'DELETE');
      location.reload();
    } catch (refusal) {
      setError(refusal);
    }
  };
  return {
    typed,
    attempt,
    error,
    change: (index: number, part: Partial<TypedReading>) =>
      setTyped(typed.map((one, place) => (place === index ? { ...one, ...part } : one))),
    add: () => setTyped([...typed, { force: '', grams: '' }]),
    removeRow: (index: number) => setTyped(typed.filter((_, place) => place !== index)),
    keep,
    remove,
  };
}

function tryFit(typed: readonly TypedReading[], machine: Machine): Attempt {
  const readings = typed
    .filter(({ force, grams }) => force.trim() !== '' && grams.trim() !== '')
    .map(({ force, grams }) => ({ force: Number(force), grams: Number(grams.replace(',', '.')) }));
  if (readings.length === 0) return { kind: 'none' };
  try {
    return { kind: 'fitted', fitted: fitForceScale(readings, machine.forceScale), readings };
  } catch (refusal) {
    return { kind: 'refused', reason: refusal instanceof Error ? refusal.message : String(refusal) };
  }
}
