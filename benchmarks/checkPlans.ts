import type { Knex } from 'knex';
import type { Store } from '#store/connection/connectStore.ts';
import { answerQuery } from '#store/repositories/book/lookupAnswers.ts';
import { postingQuery, termQueries } from '#store/repositories/book/lookup.ts';

/** How the store reads one table of one query. */
export interface PlanStep {
  readonly query: string;
  readonly table: string;
  readonly access: string;
  readonly key: string;
  readonly rows: number;
  readonly isFullScan: boolean;
}

/** The plans of every query that a lookup makes, on the book as it stands. */
export async function checkPlans(db: Store): Promise<readonly PlanStep[]> {
  const { begun, alike } = termQueries(db, 'dunfelell');
  const terms: { id: number }[] = await begun;
  const ids = terms.map(({ id }) => id);
  const postings: { materialId: number }[] = await postingQuery(db, ids, null);
  const materials = postings.slice(0, 12).map(({ materialId }) => materialId);
  const queries: Readonly<Record<string, Knex.QueryBuilder>> = {
    'terms that begin so': begun,
    'terms alike': alike,
    'materials of terms': postingQuery(db, ids, null),
    'materials of terms, narrowed': postingQuery(db, ids, materials),
    'answers of materials': answerQuery(db, materials, 1),
  };
  const steps: PlanStep[] = [];
  for (const [query, builder] of Object.entries(queries)) {
    const [rows] = (await db.raw(`EXPLAIN ${builder.toQuery()}`)) as [
      { table: string | null; type: string | null; key: string | null; rows: number | null }[],
    ];
    for (const { table, type, key, rows: count } of rows) {
      steps.push({
        query,
        table: table ?? '',
        access: type ?? '',
        key: key ?? '',
        rows: count ?? 0,
        // A derived table is the few rows of a query inside, not a table of the book.
        isFullScan: type === 'ALL' && !table?.startsWith('<'),
      });
    }
  }
  return steps;
}
