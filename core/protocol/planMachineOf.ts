import type { PlanMachine } from '#core/passes/plan.ts';
import { abilitiesOf, carriedOf } from '#core/protocol/findLanguage.ts';
import type { Machine } from '#core/station/machine.ts';
import { isSetByHand } from '#core/units/depthScale.ts';

/**
 * What a plan needs to know of a machine: its motion and its seats, and what its language can tell it.
 *
 * @example planMachineOf(machine).kind // 'matFed'
 */
export function planMachineOf(machine: Machine): PlanMachine {
  const { seats, tabs } = abilitiesOf(machine);
  const {
    kind,
    depthScale,
    forceScale,
    speedScale,
    accelerationMmPerS2,
    travelSpeedMmPerS,
    toolSeats,
    hasPrinter,
  } = machine;
  return {
    kind,
    speedScale,
    forceScale,
    accelerationMmPerS2,
    travelSpeedMmPerS,
    toolSeats,
    exposesByHand: isSetByHand(depthScale),
    hasPrinter,
    carries: carriedOf(machine),
    // A numbered cut of a panel carries its seat.
    choosesSeats: seats,
    perforation: tabs.includes('native') ? machine.perforation : 'drawn',
  };
}
