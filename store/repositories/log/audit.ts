import { z } from 'zod';
import { chunk } from '#core/collections/chunk.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { jsonColumn, timeColumn } from '#store/rows/jsonColumn.ts';

/** What can be changed, as the audit trail names it. */
export const AUDIT_ENTITIES = [
  'material',
  'machine',
  'blade',
  'mat',
  'setting',
  'calibration',
  'registration',
  'import',
  'operator',
] as const;
export type AuditEntity = (typeof AUDIT_ENTITIES)[number];
export const AUDIT_ACTIONS = ['add', 'change', 'archive', 'restore', 'lock', 'unlock'] as const;
export type AuditAction = (typeof AUDIT_ACTIONS)[number];

/** One change as the trail keeps it. `before` and `after` are whole, so that a change can be taken back. */
export interface AuditEntry {
  readonly id: number;
  readonly entity: AuditEntity;
  readonly entityId: number;
  readonly action: AuditAction;
  readonly what: string;
  readonly before: unknown;
  readonly after: unknown;
  readonly undoes: number | null;
  readonly author: string;
  readonly at: string;
}

export type NewAuditEntry = Pick<AuditEntry, 'entity' | 'entityId' | 'action' | 'what' | 'author'> & {
  readonly before?: unknown;
  readonly after?: unknown;
  readonly undoes?: number;
};

const anything = z.unknown();
const auditRow = z.object({
  id: z.number(),
  entity: z.enum(AUDIT_ENTITIES),
  entity_id: z.number(),
  action: z.enum(AUDIT_ACTIONS),
  what: z.string(),
  before_change: jsonColumn(anything),
  after_change: jsonColumn(anything),
  undoes: z.number().nullable(),
  author: z.string(),
  at: timeColumn,
});

/** Adds an entry in the transaction of the change it tells of. Returns its id, by which the change can be taken back. */
export async function addAudit(db: Store, entry: NewAuditEntry, now: Date): Promise<number> {
  const [id] = await db('audit_entries').insert(auditColumns(entry, now));
  return id as number;
}

/** Adds many entries in few statements. */
export async function addAudits(db: Store, entries: readonly NewAuditEntry[], now: Date): Promise<void> {
  for (const some of chunk(entries, MOST_ROWS)) {
    await db('audit_entries').insert(some.map((entry) => auditColumns(entry, now)));
  }
}

/** So many rows stand in one statement. */
const MOST_ROWS = 500;

function auditColumns(entry: NewAuditEntry, now: Date) {
  return {
    entity: entry.entity,
    entity_id: entry.entityId,
    action: entry.action,
    what: entry.what.slice(0, 300),
    before_change: entry.before === undefined ? null : JSON.stringify(entry.before),
    after_change: entry.after === undefined ? null : JSON.stringify(entry.after),
    undoes: entry.undoes ?? null,
    author: entry.author,
    at: now,
  };
}

/** The newest entries, of one thing or of everything. */
export async function listAudit(
  db: Store,
  of: { readonly entity: AuditEntity; readonly entityId: number } | null,
  limit: number,
): Promise<readonly AuditEntry[]> {
  const rows = db('audit_entries').orderBy('id', 'desc').limit(limit);
  if (of) void rows.where({ entity: of.entity, entity_id: of.entityId });
  return (await rows).map(readAuditRow);
}

/** @throws AppError `notFound` */
export async function findAudit(db: Store, id: number): Promise<AuditEntry> {
  const row = await db('audit_entries').where({ id }).first();
  if (!row) throw new AppError('notFound', `there is no change ${id}`);
  return readAuditRow(row);
}

function readAuditRow(row: unknown): AuditEntry {
  const { entity_id, before_change, after_change, ...same } = auditRow.parse(row);
  return { ...same, entityId: entity_id, before: before_change, after: after_change };
}
