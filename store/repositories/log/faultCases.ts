import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { ACTIONS, STANDING_ACTIONS, type Action } from '#core/faults/faultActions.ts';
import { type Symptom, SYMPTOMS } from '#core/faults/symptoms.ts';
import { type Cause, CAUSES } from '#core/faults/causes.ts';
import type { ActionRecord } from '#core/faults/rankActions.ts';
import type { CauseCounts } from '#core/faults/rankCauses.ts';
import { type Operation, OPERATIONS } from '#core/stack/operation.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { flagColumn, jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

/** A fault that was met and what was done about it. */
export interface FaultCase {
  readonly id: number;
  readonly machineId: number;
  readonly conditionId: number | null;
  readonly operation: Operation;
  readonly symptoms: readonly Symptom[];
  /** The likeliest cause of those that the action mends. */
  readonly cause: Cause;
  readonly action: Action;
  /** "62 to 66 gf", or empty. */
  readonly changeWords: string;
  /** `null` until somebody says. */
  readonly hasHelped: boolean | null;
  readonly author: string;
  readonly at: string;
}

const caseRow = z.object({
  id: z.number(),
  machine_id: z.number(),
  condition_id: z.number().nullable(),
  operation: z.enum(OPERATIONS),
  symptoms: jsonColumn(z.array(z.enum(SYMPTOMS)).readonly()),
  cause: z.enum(CAUSES),
  action: z.enum(ACTIONS),
  change_words: z.string(),
  has_helped: flagColumn.nullable(),
  author: z.string(),
  at: timeColumn,
});

export async function addFaultCase(
  db: Store,
  found: Omit<FaultCase, 'id' | 'hasHelped' | 'at'>,
  now: Date,
): Promise<number> {
  const [id] = await db('fault_cases').insert({
    machine_id: found.machineId,
    condition_id: found.conditionId,
    operation: found.operation,
    symptoms: JSON.stringify(found.symptoms),
    cause: found.cause,
    action: found.action,
    change_words: found.changeWords,
    author: found.author,
    at: now,
  });
  return id as number;
}

/** Cases of a machine that nobody has answered, the newest first. */
export async function listOpenCases(db: Store, machineId: number): Promise<readonly FaultCase[]> {
  const rows: unknown[] = await db('fault_cases')
    .where({ machine_id: machineId, has_helped: null })
    .orderBy('id', 'desc')
    .limit(10);
  return rows.map(readCase);
}

/** What helped at a machine for good and nobody put away, the newest of each action. */
export async function listStandingCases(db: Store, machineId: number): Promise<readonly FaultCase[]> {
  const rows: unknown[] = await db('fault_cases')
    .where({ machine_id: machineId, has_helped: true, put_away_at: null })
    .whereIn('action', [...STANDING_ACTIONS])
    .orderBy('id', 'desc');
  const cases = rows.map(readCase);
  return cases.filter(({ action }, at) => cases.findIndex((one) => one.action === action) === at);
}

/** Puts what helped away, with all cases of the same action on its machine. @throws AppError `notFound` */
export async function putStandingAway(db: Store, id: number, now: Date): Promise<void> {
  const row: unknown = await db('fault_cases').where({ id }).first();
  if (!row) throw new AppError('notFound', `there is no fault ${id}`);
  const { machineId, action } = readCase(row);
  await db('fault_cases')
    .where({ machine_id: machineId, action, put_away_at: null })
    .update({ put_away_at: now });
}

/** Says whether it helped; said again, the last word counts. @throws AppError `notFound` */
export async function answerCase(db: Store, id: number, hasHelped: boolean, now: Date): Promise<FaultCase> {
  const changed = await db('fault_cases').where({ id }).update({ has_helped: hasHelped, answered_at: now });
  if (changed === 0) throw new AppError('notFound', `there is no fault ${id}`);
  return readCase(await db('fault_cases').where({ id }).first());
}

/** What answered cases of the workshop teach: causes that were found, and how actions fared. */
export async function learnFromCases(
  db: Store,
): Promise<{ readonly causes: CauseCounts; readonly actions: ActionRecord }> {
  const rows: unknown[] = await db('fault_cases').whereNotNull('has_helped');
  const causes: Partial<Record<Cause, number>> = {};
  const actions: Partial<Record<Action, { helped: number; tried: number }>> = {};
  for (const { cause, action, hasHelped } of rows.map(readCase)) {
    if (hasHelped) causes[cause] = (causes[cause] ?? 0) + 1;
    const { helped, tried } = actions[action] ?? { helped: 0, tried: 0 };
    actions[action] = { helped: helped + (hasHelped ? 1 : 0), tried: tried + 1 };
  }
  return { causes, actions };
}

function readCase(row: unknown): FaultCase {
  const { machine_id, condition_id, change_words, has_helped, ...same } = caseRow.parse(row);
  return {
    ...same,
    machineId: machine_id,
    conditionId: condition_id,
    changeWords: change_words,
    hasHelped: has_helped,
  };
}
