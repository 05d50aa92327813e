import { useState } from 'react';
import { snapForce, type ForceScale } from '#core/units/forceScale.ts';

/** The force to cut next: the advised one until a hand chooses another; always one the machine can do. */
export function useForceDial(scale: ForceScale, advised: number) {
  const [own, setOwn] = useState<number | null>(null);
  const force = own ?? advised;
  const setForce = (value: number) => setOwn(snapForce(value, scale));
  return {
    force,
    setForce,
    nudge: (steps: number) => setForce(force + steps * scale.step),
    takeAdvice: () => setOwn(null),
  };
}
