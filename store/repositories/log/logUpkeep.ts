import type { LogEntry } from '#core/job/logKinds.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { narrowChanges, narrowLog, narrowUpkeep, type LogScope } from '#store/repositories/log/narrowLog.ts';

/** Care of blades and mats, the newest first. */
export async function upkeep(db: Store, limit: number, scope: LogScope): Promise<LogEntry[]> {
  const rows: { id: number; at: Date; what: string; author: string }[] = await db('upkeep_entries')
    .modify(narrowUpkeep, scope)
    .select('upkeep_entries.*')
    .orderBy('at', 'desc')
    .limit(limit);
  return rows.map((row) => ({
    id: `upkeep-${row.id}`,
    kind: 'upkeep',
    at: row.at.toISOString(),
    what: row.what,
    detail: '',
    author: row.author,
    link: '/upkeep',
  }));
}

/** Waits that were started, the newest first. */
export async function waits(db: Store, limit: number, scope: LogScope): Promise<LogEntry[]> {
  const rows: {
    id: number;
    started_at: Date;
    ends_at: Date;
    words: string;
    author: string;
    job_id: number | null;
  }[] = await db('timers')
    .leftJoin('jobs', 'jobs.id', 'timers.job_id')
    .modify(narrowLog, scope, {
      at: 'timers.started_at',
      machine: 'jobs.machine_id',
      material: 'timers.material_id',
    })
    .select('timers.*')
    .orderBy('started_at', 'desc')
    .limit(limit);
  return rows.map((row) => ({
    id: `wait-${row.id}`,
    kind: 'wait',
    at: row.started_at.toISOString(),
    what: row.words,
    detail: `${Math.round((row.ends_at.getTime() - row.started_at.getTime()) / 60_000)} min`,
    author: row.author,
    link: row.job_id === null ? null : `/jobs/${row.job_id}`,
  }));
}

/** Alarms of drift, the newest first. */
export async function drifts(db: Store, limit: number, scope: LogScope): Promise<LogEntry[]> {
  const rows: {
    id: number;
    raised_at: Date;
    direction: string;
    reason: string;
    closed_why: string;
    machine: string;
  }[] = await db('drift_alarms')
    .join('machines', 'machines.id', 'drift_alarms.machine_id')
    .modify(narrowLog, scope, { at: 'drift_alarms.raised_at', machine: 'machines.id' })
    .select('drift_alarms.*', { machine: 'machines.name' })
    .orderBy('raised_at', 'desc')
    .limit(limit);
  return rows.map((row) => ({
    id: `drift-${row.id}`,
    kind: 'fault',
    at: row.raised_at.toISOString(),
    what: `${row.machine} drifts: cuts need ${row.direction} force`,
    detail: [row.reason, row.closed_why ? `answered: ${row.closed_why}` : ''].filter(Boolean).join(' · '),
    author: '',
    link: '/upkeep',
  }));
}

const PAGES: Readonly<Record<string, (id: number) => string>> = {
  material: (id) => `/materials/${id}`,
  machine: (id) => `/machines/${id}`,
  calibration: (id) => `/machines/${id}`,
  registration: (id) => `/machines/${id}#print-to-cut`,
  setting: (id) => `/settings/${id}`,
  blade: () => '/upkeep',
  mat: () => '/upkeep',
  import: () => '/book',
};

/** Changes of the book, the newest first; kept revisions and care of tools tell of themselves. */
export async function changes(db: Store, limit: number, scope: LogScope): Promise<LogEntry[]> {
  const rows: { id: number; entity: string; entity_id: number; at: Date; what: string; author: string }[] =
    await db('audit_entries')
      .modify(narrowChanges, scope)
      .whereNot((own) => own.where({ entity: 'setting' }).whereIn('action', ['add', 'change']))
      .orderBy('id', 'desc')
      .limit(limit);
  return rows.map((row) => ({
    id: `change-${row.id}`,
    kind: 'change',
    at: row.at.toISOString(),
    what: row.what,
    detail: '',
    author: row.author,
    link: PAGES[row.entity]?.(row.entity_id) ?? null,
  }));
}
