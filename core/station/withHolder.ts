import type { Machine } from '#core/station/machine.ts';
import type { Blade } from '#core/station/station.ts';

/**
 * A machine as the holder of its blade makes it: one with a dial of its own sets the exposure by that, whatever the other
 * holders of the machine count by. The same number on two of them means another depth.
 *
 * @example withHolder(machine, { ...station.blade, dialMmPerStep: 0.2 }).depthScale.mmPerStep // 0.2
 */
export function withHolder(
  machine: Machine,
  blade: Pick<Blade, 'dialMmPerStep' | 'reachMm'> | null,
): Machine {
  if (!blade?.dialMmPerStep) return machine;
  const maxMm = blade.reachMm ?? machine.depthScale.maxMm;
  return { ...machine, depthScale: { kind: 'dial', mmPerStep: blade.dialMmPerStep, maxMm } };
}
