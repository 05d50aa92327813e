import { AppError } from '#core/errors/appError.ts';
import { gradesOfStack, type DepthGrade, type Flaw } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import { requireLoaded } from '#core/station/requireLoaded.ts';
import type { Station } from '#core/station/station.ts';
import { requireExposureInRange } from '#core/units/depthScale.ts';
import { forceToGf } from '#core/units/forceScale.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';
import type { NewTestCut } from '#store/repositories/dialIn/testCuts.ts';

/** A cut as it was graded. Force and speed on the machine's scales. */
export interface GivenCut {
  readonly operation: DepthOperation;
  readonly force: number;
  readonly passes: number;
  readonly speed: number;
  readonly exposureMm: number;
  readonly grade: DepthGrade;
  readonly upTo?: DepthGrade | undefined;
  readonly flaws: readonly Flaw[];
  readonly author: string;
}

/**
 * A graded cut with everything the station knows of it: sheet, lot, blade and its metres, force in grams.
 *
 * @throws AppError `badInput` when nothing is loaded, the sheet has no such grade, or a value is off its scale
 */
export function describeCut(station: Station, given: GivenCut): NewTestCut {
  const { machine, loaded, blade } = requireLoaded(station);
  const grades = gradesOfStack(measureStack(loaded.condition.stack).isLayered);
  if (!grades.includes(given.grade)) {
    throw new AppError('badInput', `this sheet has no grade ${given.grade}; it shows ${grades.join(', ')}`);
  }
  if (given.upTo !== undefined && (given.upTo < given.grade || !grades.includes(given.upTo))) {
    throw new AppError('badInput', `grades from ${given.grade} to ${given.upTo} are no range of this sheet`);
  }
  requireExposureInRange(given.exposureMm, machine.depthScale);
  const { speed, ...cut } = given;
  return {
    ...cut,
    conditionId: loaded.condition.id,
    machineId: machine.id,
    forceGf: forceToGf(given.force, machine.forceScale),
    speedMmPerS: speedToMmPerS(speed, machine.speedScale),
    bladeMetres: blade?.travelMetres ?? 0,
    bladeId: blade?.id ?? null,
    lot: loaded.lot,
    colour: loaded.colour,
  };
}
