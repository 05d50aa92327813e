import { z } from 'zod';

/** A JSON column parsed by a schema: MariaDB hands JSON out as text. */
export function jsonColumn<Schema extends z.ZodType>(schema: Schema) {
  return z.preprocess((value) => (typeof value === 'string' ? JSON.parse(value) : value), schema);
}

/** A DATETIME column as an ISO 8601 text in UTC. */
export const timeColumn = z.date().transform((date) => date.toISOString());

/** An integer that MariaDB may hand out as 0 or 1. */
export const flagColumn = z.union([z.boolean(), z.number()]).transform(Boolean);
