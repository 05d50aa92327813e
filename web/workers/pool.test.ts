import { afterAll, describe, expect, it } from 'vitest';
import { CSV_COLUMNS } from '#core/book/csvColumns.ts';
import { MOST_ROWS } from '#web/schemas/book.ts';
import { closePool, runTask } from '#web/workers/pool.ts';

/** What the server hands to its threads leaves it free, and has an end. */
afterAll(closePool);

const square =
  '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="40mm"><path d="M1 1H30V30H1Z"/></svg>';
/** A file that takes a thread a second to read. */
const slow = () => {
  const headings = CSV_COLUMNS.map(({ heading }) => heading).join(',');
  return [headings, ...Array.from({ length: MOST_ROWS }, () => '"Oldstrand",a,b,c,d,e,1,2,3,4')].join('\n');
};

describe('a thread of the server', () => {
  it('hands back a refusal as the refusal it was', async () => {
    await expect(runTask('checkDrawing', { format: 'svg', source: '<svg' })).rejects.toMatchObject({
      name: 'AppError',
      code: 'badDrawing',
    });
    expect(await runTask('checkDrawing', { format: 'svg', source: square })).toBeNull();
  });

  it('leaves the server free while it works, and is stopped when it takes too long', async () => {
    // The server's own loop goes round and round meanwhile; were the work done in it, it would not turn at all.
    let turns = 0;
    let next = setImmediate(function turn() {
      turns += 1;
      next = setImmediate(turn);
    });
    const work = runTask('readCsvBook', slow(), { seconds: 0.05 });
    turns = 0;
    await expect(work).rejects.toMatchObject({ code: 'tooLarge' });
    clearImmediate(next);
    expect(turns).toBeGreaterThan(20);
    // A thread that was ended is replaced.
    expect(await runTask('checkDrawing', { format: 'svg', source: square })).toBeNull();
  });

  it('is stopped by who hangs up', async () => {
    const hangUp = new AbortController();
    const work = runTask('readCsvBook', slow(), { signal: hangUp.signal });
    hangUp.abort();
    await expect(work).rejects.toThrow(/abort/i);
  });
});
