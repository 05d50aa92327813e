import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { FAMILY_HABITS } from '#core/threshold/thresholdPriors.ts';
import { askPath } from '#e2e/support/askEndpoint.ts';
import { believedThreshold } from '#e2e/support/believedThreshold.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { changeStation } from '#store/repositories/bench/stations.ts';
import { now, openTestStore } from '#store/tests/testStore.ts';
import type { KnowledgeReply } from '#web/schemas/knowledge.ts';

/** A workshop whose films are kissed at 25 gf says so, and a sheet nobody cut begins there. */
let db: Store;
let machineId: number;
let conditionId: number;
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);
beforeAll(async () => {
  ({ db, machineId, conditionId } = await openTestStore());
  await changeStation(db, machineId, { conditionId }, 'Ines', now);
});
afterAll(() => db.destroy());

const path = '/api/knowledge/usual-forces/plainVinyl';
const common = FAMILY_HABITS.plainVinyl.usualGf;

const usualOf = (reply: unknown) =>
  (reply as KnowledgeReply).usualForces.find(({ family }) => family === 'plainVinyl');

it('moves what is believed of a new sheet by its own figure, and back', async () => {
  const before = await believedThreshold(db, machineId);
  const { reply } = await askPath('PUT', path, { body: { usualGf: 25 }, author: 'Tove' });
  expect(usualOf(reply)).toMatchObject({
    usualGf: expect.closeTo(25, 6) as number,
    commonGf: common,
    author: 'Tove',
  });
  expect(await believedThreshold(db, machineId)).toBeCloseTo(before + Math.log(25 / common), 6);
  await askPath('DELETE', path, {});
  expect(await believedThreshold(db, machineId)).toBeCloseTo(before, 6);
});

it('is refused in words where no sheet takes that', async () => {
  const { status, reply } = await askPath('PUT', path, { body: { usualGf: 9000 } });
  expect(status).toBe(400);
  expect(JSON.stringify(reply)).toMatch(/9000 gf is not between 3 and 3000/);
  expect((await askPath('PUT', '/api/knowledge/usual-forces/cheese', { body: { usualGf: 50 } })).status).toBe(
    400,
  );
});
