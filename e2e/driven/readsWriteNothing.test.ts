import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import { countWrites } from '#store/connection/countWrites.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { changeStation } from '#store/repositories/bench/stations.ts';
import { addTestCut } from '#store/repositories/dialIn/testCuts.ts';
import { cut, now, openTestStore } from '#store/tests/testStore.ts';
import { askEndpoint } from '#e2e/support/askEndpoint.ts';
import { ENDPOINTS } from '#web/http/listEndpoints.ts';

/** Every GET of the application is asked; none of them writes. */
let db: Store;
let count: () => number;
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);
beforeAll(async () => {
  const opened = await openTestStore();
  ({ db } = opened);
  const { conditionId, machineId } = opened;
  await changeStation(db, machineId, { conditionId }, 'Ines', now);
  for (const force of [60, 80, 90, 100, 120]) {
    await addTestCut(db, { ...cut, force, forceGf: force, conditionId, machineId }, now);
  }
  count = countWrites(db);
});
afterAll(() => db.destroy());

const params = {
  id: 1,
  machineId: 1,
  materialId: 1,
  conditionId: 1,
  photoId: 1,
  sheetId: 1,
  calibrationId: 1,
  load: 1,
  operation: 'kiss',
  quantity: 'tabs',
  day: '2026-11-27',
  name: 'sheet',
};
/** Streams never end. */
const reads = ENDPOINTS.filter(({ method, path }) => method === 'GET' && !path.endsWith('/events'));

it.each(reads.map((endpoint) => [endpoint.path, endpoint] as const))(
  'reading %s writes nothing',
  async (_, endpoint) => {
    const before = count();
    const { status } = await askEndpoint(endpoint, {
      params,
      query: endpoint.path === '/api/labels' ? '?ids=1' : '',
    });
    expect(status).toBeLessThan(500);
    expect(count()).toBe(before);
  },
);

it('there are many of them', () => expect(reads.length).toBeGreaterThan(40));
