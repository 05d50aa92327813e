import { stringify } from 'csv-stringify/sync';
import { z } from 'zod';
import { LOG_KINDS } from '#core/job/logKinds.ts';
import { AppError } from '#core/errors/appError.ts';
import { addDays, startOfDay } from '#core/time/workshopTime.ts';
import { listLog } from '#store/repositories/log/log.ts';
import type { LogScope } from '#store/repositories/log/narrowLog.ts';
import { workshopZone } from '#web/http/workshopZone.ts';
import { replyWithFile } from '#web/http/replyWithFile.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { logEntrySchema } from '#web/schemas/run.ts';

/** Which part of the log is wanted: days of the workshop, both included. */
export const scopeQuery = z.object({
  from: z.iso.date().optional(),
  to: z.iso.date().optional(),
  machine: idParam.optional(),
  material: idParam.optional(),
  kind: z.enum(LOG_KINDS).optional(),
});

/** Whether the last day lies before the first. */
export function isBackwards({ from, to }: Pick<z.infer<typeof scopeQuery>, 'from' | 'to'>): boolean {
  return from !== undefined && to !== undefined && from > to;
}

/** @throws AppError `badInput` when the last day lies before the first */
export function scopeOf(
  { from, to, machine, material, kind }: z.infer<typeof scopeQuery>,
  zone: string,
): LogScope {
  if (isBackwards({ from, to }))
    throw new AppError('badInput', `The log from ${from} to ${to}: the first day is later than the last.`);
  return {
    from: from ? startOfDay(from, zone) : null,
    until: to ? startOfDay(addDays(to, 1), zone) : null,
    machineId: machine ?? null,
    materialId: material ?? null,
    kind: kind ?? null,
  };
}

export const getLog = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/log',
  summary:
    'Runs, test cuts, kept settings, waits, faults and upkeep, the newest first; of some days, a machine, a material or one kind.',
  query: scopeQuery.extend({ limit: z.coerce.number().int().min(1).max(1000).default(300) }),
  reply: z.array(logEntrySchema).readonly(),
  handle: async ({ query }, { store }) =>
    listLog(store, query.limit, scopeOf(query, await workshopZone(store))),
});

/** As far as a spreadsheet is asked for. */
const MOST_ROWS = 10_000;

export const getLogCsv = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/log.csv',
  summary: 'The log, or a part of it, as CSV, UTF-8 with a byte order mark, the newest first.',
  query: scopeQuery,
  reply: z.string().meta({ description: 'text/csv' }),
  handle: async ({ query }, { store }) => {
    const scope = scopeOf(query, await workshopZone(store));
    const rows = (await listLog(store, MOST_ROWS, scope)).map(({ at, kind, what, detail, author }) => [
      at,
      kind,
      what,
      detail,
      author,
    ]);
    const csv = stringify([['at', 'kind', 'what', 'detail', 'by'], ...rows], {
      bom: true,
      // A cell that begins like a formula is not run by a spreadsheet.
      escape_formulas: true,
    });
    return replyWithFile(csv, 'text/csv; charset=utf-8', 'log.csv');
  },
});
