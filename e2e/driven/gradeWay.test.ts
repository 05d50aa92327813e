import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Store } from '#store/connection/connectStore.ts';
import { changeStation } from '#store/repositories/bench/stations.ts';
import { addMachine, listMachines } from '#store/repositories/book/machines.ts';
import { addTestCut } from '#store/repositories/dialIn/testCuts.ts';
import { cut, now, openTestStore } from '#store/tests/testStore.ts';
import { askPath } from '#e2e/support/askEndpoint.ts';
import type { DialInReply } from '#web/schemas/dialIn.ts';

/** The way of a tapped grade: into the book and back with an answer. */
let db: Store;
let machineId: number;
let conditionId: number;
const said: string[] = [];
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);
beforeAll(async () => {
  const opened = await openTestStore();
  ({ db, machineId, conditionId } = opened);
  await changeStation(db, machineId, { conditionId }, 'Ines', now);
  const [first] = await listMachines(db);
  const { id, version, isArchived, ...machine } = first!;
  const other = await addMachine(db, { ...machine, name: 'Another bench' }, now);
  // What another machine cut on the same sheet is read too.
  await addTestCut(db, { ...cut, force: 70, forceGf: 70, conditionId, machineId: other }, now);
  db.on('query', ({ sql }: { sql: string }) => said.push(sql));
});
afterAll(() => db.destroy());

const isWork = (sql: string) => !/^(SET TRANSACTION|BEGIN|COMMIT|SAVEPOINT|RELEASE)/.test(sql);
const ask = async (path: string, body: object) =>
  (await askPath('POST', path, { body })) as { status: number; reply: DialInReply };

describe('a tapped grade', () => {
  it('takes sixteen statements at most, one of them to tell other pages, and none of them twice', async () => {
    const { reply } = await ask('/api/dial-ins', { machineId, operation: 'kiss' });
    const path = `/api/dial-ins/${reply.dialIn.id}`;
    const grade = { force: reply.bench.answer!.advisedForce, grade: 3, flaws: [] };
    said.length = 0;
    const graded = await ask(`${path}/grades`, { grades: [grade] });
    expect(graded.status).toBe(201);
    expect(graded.reply.bench.cuts).toHaveLength(1);
    expect(graded.reply.dialIn).toMatchObject({ loadCount: 1, version: reply.dialIn.version + 1 });
    const work = said.filter(isWork);
    expect(work.length).toBeLessThanOrEqual(16);
    expect(new Set(work).size).toBe(work.length);
  });

  it('takes no more of them for a whole card', async () => {
    const { reply } = await ask('/api/dial-ins', { machineId, operation: 'kiss' });
    const path = `/api/dial-ins/${reply.dialIn.id}`;
    const laid = await ask(`${path}/cards`, { version: reply.dialIn.version });
    const { load, forces } = laid.reply.dialIn.card!;
    const grades = forces.map((_, cell) => ({ cell, grade: Math.min(8, cell), flaws: [] }));
    // The fit that the grade before asked for has statements of its own.
    await askPath('DELETE', '/api/knowledge/refits', {});
    said.length = 0;
    const graded = await ask(`${path}/grades`, { load, grades });
    expect(graded.status).toBe(201);
    expect(graded.reply.dialIn.card).toBeNull();
    expect(said.filter(isWork).length).toBeLessThanOrEqual(17);
  });
});
