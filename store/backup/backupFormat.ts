import { z } from 'zod';

/** What a file of a whole copy begins with. Every line is JSON; the file is compressed by gzip. */
export const backupHead = z.object({
  format: z.literal('pale-feather-backup'),
  version: z.literal(1),
  madeAt: z.iso.datetime(),
  /** Migrations of the store it was made of, in order: they tell the shape of its tables. */
  migrations: z.array(z.string()).min(1),
});
export type BackupHead = z.infer<typeof backupHead>;

/** A table begins: its columns, and which of them hold bytes, which stand in base64. */
export const tableHead = z.object({
  table: z.string(),
  columns: z.array(z.string()).min(1),
  binary: z.array(z.number().int()),
});
export type TableHead = z.infer<typeof tableHead>;

/** A row: every value as the database writes it, or `null`. */
export const backupRow = z.array(z.string().nullable());

/** A table ends: how many rows it had, and the SHA-256 of their lines. */
export const tableEnd = z.object({ end: z.string(), rows: z.number().int(), sha256: z.string() });

/** The last line: without it the file was cut off. */
export const backupEnd = z.object({ tables: z.number().int() });

/** A table as a copy holds it. */
export interface TableSum {
  readonly table: string;
  readonly rows: number;
  readonly sha256: string;
}
