import type { TestCut } from '#core/dialIn/testCut.ts';
import type { KnownSetting } from '#core/answer/composeAnswer.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { Station } from '#core/station/station.ts';
import { forceToGf } from '#core/units/forceScale.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';
import type { DialInStart } from '#web/islands/testCuts/start/dialInStart.ts';
import type { GivenGrades } from '#web/islands/testCuts/start/givenGrades.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import type { AnswerOrder } from '#web/workers/answerSheet.ts';

/** The question whose answer the new grades leave, to be answered here while the server records them. */
export function previewGrades(
  station: Station,
  operation: DepthOperation,
  { reply, bench }: DialInStart,
  { load, grades }: GivenGrades,
): (AnswerOrder & { readonly cuts: BenchAnswer['cuts'] }) | null {
  const { machine, blade, loaded } = station;
  const { answer, belief } = bench;
  if (!loaded || !answer || !belief) return null;
  const { passes, speed, exposureMm } = reply?.dialIn ?? answer.values;
  const fresh = grades.map(({ force, cell, grade, upTo, flaws }, index): BenchAnswer['cuts'][number] => {
    const at = force ?? reply?.dialIn.card?.forces[cell ?? -1] ?? answer.advisedForce;
    return {
      id: -1 - index,
      conditionId: loaded.condition.id,
      machineId: machine.id,
      operation,
      force: at,
      forceGf: forceToGf(at, machine.forceScale),
      speedMmPerS: speedToMmPerS(speed, machine.speedScale),
      passes,
      exposureMm,
      bladeMetres: blade?.travelMetres ?? 0,
      grade,
      upTo,
      flaws: [...flaws],
      author: 'recording',
      lot: loaded.lot,
      colour: loaded.colour,
      at: new Date().toISOString(),
      bladeId: blade?.id ?? null,
      dialInId: reply?.dialIn.id ?? null,
      load: load ?? null,
      cell: cell ?? null,
    } satisfies TestCut;
  });
  const known: KnownSetting | null = bench.revision && {
    revision: bench.revision,
    state: answer.state,
    stateReason: answer.stateReason,
  };
  return {
    station,
    operation,
    known,
    cuts: [...bench.cuts, ...fresh],
    context: { passes, speed, exposureMm, runs: bench.runs, harmCuts: bench.harmCuts },
    belief,
  };
}
