import { DEPTH_OPERATIONS, type DepthOperation, type Operation, OPERATIONS } from '#core/stack/operation.ts';
import { targetGrades } from '#core/stack/depthGrade.ts';
import { hasLiner } from '#core/stack/layer.ts';
import type { Station } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findOpenDialIn } from '#store/repositories/dialIn/dialIns.ts';
import { answerJudged } from '#web/endpoints/dialIn/answerJudged.ts';
import { readAnswer } from '#web/endpoints/bench/readAnswer.ts';
import { readDialIn } from '#web/endpoints/dialIn/readDialIn.ts';

/** What the page of test cuts shows: a force to find by depth, or pieces to judge; `null` when nothing is loaded. */
export async function readTestCuts(store: Store, station: Station, asked: string | null) {
  const { loaded, machine } = station;
  if (!loaded) return null;
  const isLayered = hasLiner(loaded.condition.stack);
  const quantities = OPERATIONS.filter((one) => isPossible(one, isLayered, machine.operations));
  const now = quantities.find((one) => one === asked) ?? quantities[0] ?? 'through';
  if (now === 'perforated' || now === 'crease') {
    const judged = await answerJudged(store, { ...station, loaded }, now === 'crease' ? 'crease' : 'tabs');
    return { kind: 'judged' as const, quantities, judged };
  }
  const operation: DepthOperation = now;
  const { lot, colour } = loaded;
  const key = { machineId: machine.id, conditionId: loaded.condition.id, lot, colour, operation };
  const open = await findOpenDialIn(store, key);
  const reply = open && (await readDialIn(store, open));
  const bench = reply?.bench ?? (await readAnswer(store, station, operation));
  return { kind: 'depth' as const, quantities, operation, start: { reply, bench } };
}

/** A machine without a crease tool creases nothing; a single layer is not kissed, a layered sheet not creased. */
function isPossible(operation: Operation, isLayered: boolean, ofMachine: readonly Operation[]): boolean {
  if (operation === 'kiss' || operation === 'through') return targetGrades(operation, isLayered) !== null;
  if (!ofMachine.includes(operation)) return false;
  if (operation === 'perforated') return true;
  const byDepth = DEPTH_OPERATIONS.find((one) => one === operation);
  return byDepth ? targetGrades(byDepth, isLayered) !== null : !isLayered;
}
