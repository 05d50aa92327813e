import { z } from 'zod';
import type { LogEntry, LogKind } from '#core/job/logKinds.ts';
import { type Operation, OPERATION_WORDS } from '#core/stack/operation.ts';
import { ACTION_FACTS, type Action } from '#core/faults/faultActions.ts';
import { SYMPTOM_WORDS, SYMPTOMS } from '#core/faults/symptoms.ts';
import { GRADE_WORDS, type DepthGrade } from '#core/stack/depthGrade.ts';
import { nameCondition, type ConditionKind } from '#core/stack/material.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { changes, drifts, upkeep, waits } from '#store/repositories/log/logUpkeep.ts';
import { narrowLog, WHOLE_LOG, type LogScope } from '#store/repositories/log/narrowLog.ts';
import { jsonColumn } from '#store/rows/jsonColumn.ts';

/** What reads the entries of one kind, newest first. */
type Reader = (db: Store, limit: number, scope: LogScope) => Promise<LogEntry[]>;

const READERS: Readonly<Record<LogKind, readonly Reader[]>> = {
  run: [runs],
  testCut: [testCuts],
  setting: [revisions],
  upkeep: [upkeep],
  wait: [waits],
  fault: [faults, drifts],
  change: [changes],
};

/** The newest entries, newest first. */
export async function listLog(
  db: Store,
  limit: number,
  scope: LogScope = WHOLE_LOG,
): Promise<readonly LogEntry[]> {
  const readers = scope.kind ? READERS[scope.kind] : Object.values(READERS).flat();
  const all = await Promise.all(readers.map((read) => read(db, limit, scope)));
  return all
    .flat()
    .sort((a, b) => b.at.localeCompare(a.at) || b.id.localeCompare(a.id))
    .slice(0, limit);
}

interface Named {
  readonly material: string;
  readonly condition: ConditionKind;
  readonly machine: string;
}

const VERDICT_WORDS: Readonly<Record<string, string>> = {
  clean: 'clean',
  someSpoiled: 'some spoiled',
  failed: 'failed',
};

async function runs(db: Store, limit: number, scope: LogScope): Promise<LogEntry[]> {
  const rows: (Named & {
    id: number;
    started_at: Date;
    job: string;
    state: string;
    verdict: string | null;
    search: number | null;
    judged: string | null;
    pieces_good: number;
    pieces_spoiled: number;
    note: string;
    repeats: number;
    sheet_number: number;
    worn_metres: number;
    mat_uses: number | null;
    author: string;
  })[] = await named(db, 'runs', scope, 'runs.started_at')
    .join('jobs', 'jobs.id', 'runs.job_id')
    .select(
      'runs.id',
      'runs.started_at',
      'runs.state',
      'runs.verdict',
      'runs.pieces_good',
      'runs.pieces_spoiled',
      'runs.note',
      'runs.author',
      'runs.sheet_number',
      'runs.worn_metres',
      'runs.mat_uses',
      { job: 'jobs.name', search: 'jobs.dial_in_id', judged: 'jobs.judged' },
      db.raw('runs.repeated_strokes as repeats'),
    )
    .orderBy('started_at', 'desc')
    .limit(limit);
  return rows.map((row) => ({
    id: `run-${row.id}`,
    kind: 'run',
    at: row.started_at.toISOString(),
    what: `${row.job} on ${row.machine}`,
    detail: [
      nameCondition(row.material, row.condition),
      row.verdict
        ? `${VERDICT_WORDS[row.verdict]}: ${row.pieces_good} good, ${row.pieces_spoiled} spoiled`
        : `${row.state}, ${row.search === null && row.judged === null ? 'not noted yet' : 'for a search'}`,
      row.sheet_number > 1 ? `sheet ${row.sheet_number}` : '',
      row.worn_metres > 0 ? `the blade went ${row.worn_metres.toFixed(1)} m` : '',
      row.mat_uses === null ? '' : `mat used ${row.mat_uses} times before`,
      Number(row.repeats) > 0 ? `a path cut again, ${row.repeats} strokes` : '',
      row.note,
    ]
      .filter(Boolean)
      .join(' · '),
    author: row.author,
    link: `/runs/${row.id}`,
  }));
}

async function testCuts(db: Store, limit: number, scope: LogScope): Promise<LogEntry[]> {
  const rows: (Named & {
    id: number;
    at: Date;
    operation: string;
    force_value: number;
    passes: number;
    grade: DepthGrade;
    author: string;
    undone_at: Date | null;
  })[] = await named(db, 'test_cuts', scope, 'test_cuts.at')
    .select('test_cuts.*')
    .orderBy('at', 'desc')
    .limit(limit);
  return rows.map((row) => ({
    id: `test-${row.id}`,
    kind: 'testCut',
    at: row.at.toISOString(),
    what: `Test cut for ${row.operation}: force ${row.force_value}, ${GRADE_WORDS[row.grade].word}`,
    detail: `${nameCondition(row.material, row.condition)} on ${row.machine}${row.undone_at ? ' · taken back' : ''}`,
    author: row.author,
    link: null,
  }));
}

async function revisions(db: Store, limit: number, scope: LogScope): Promise<LogEntry[]> {
  const rows: (Named & {
    id: number;
    at: Date;
    operation: Operation;
    setting_id: number;
    revision: number;
    reason: string;
    author: string;
  })[] = await named(db, 'settings', scope, 'setting_revisions.at')
    .join('setting_revisions', 'setting_revisions.setting_id', 'settings.id')
    .select('setting_revisions.*', 'settings.operation')
    .orderBy('at', 'desc')
    .limit(limit);
  return rows.map((row) => ({
    id: `setting-${row.id}`,
    kind: 'setting',
    at: row.at.toISOString(),
    what: `${OPERATION_WORDS[row.operation]} setting kept, revision ${row.revision}`,
    detail: `${nameCondition(row.material, row.condition)} on ${row.machine} · ${row.reason}`,
    author: row.author,
    link: `/settings/${row.setting_id}`,
  }));
}

const symptomsColumn = jsonColumn(z.array(z.enum(SYMPTOMS)));

async function faults(db: Store, limit: number, scope: LogScope): Promise<LogEntry[]> {
  const rows: (Named & {
    id: number;
    at: Date;
    symptoms: unknown;
    action: Action;
    change_words: string;
    has_helped: number | null;
    author: string;
  })[] = await named(db, 'fault_cases', scope, 'fault_cases.at')
    .select('fault_cases.*')
    .orderBy('at', 'desc')
    .limit(limit);
  return rows.map((row) => {
    const symptoms = symptomsColumn.parse(row.symptoms).map((symptom) => SYMPTOM_WORDS[symptom]);
    const helped =
      row.has_helped === null ? 'not said yet' : row.has_helped ? 'it helped' : 'it did not help';
    return {
      id: `fault-${row.id}`,
      kind: 'fault',
      at: row.at.toISOString(),
      what: `Fault: ${symptoms.join(', ')}`,
      detail: [
        `${nameCondition(row.material, row.condition)} on ${row.machine}`,
        `${ACTION_FACTS[row.action].words} ${row.change_words}`.trim(),
        helped,
      ].join(' · '),
      author: row.author,
      link: '/faults',
    };
  });
}

/** A table that names a condition and a machine, joined with their words and narrowed. */
function named(db: Store, table: string, scope: LogScope, at: string) {
  return db(table)
    .modify(narrowLog, scope, { at, machine: 'machines.id', material: 'materials.id' })
    .join('material_conditions', 'material_conditions.id', `${table}.condition_id`)
    .join('materials', 'materials.id', 'material_conditions.material_id')
    .join('machines', 'machines.id', `${table}.machine_id`)
    .select({ material: 'materials.name', condition: 'material_conditions.kind', machine: 'machines.name' });
}
