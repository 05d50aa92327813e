import { afterAll, beforeAll, expect, it, vi } from 'vitest';
import type { Store } from '#store/connection/connectStore.ts';
import { addBlade } from '#store/repositories/bench/tools.ts';
import { changeStation } from '#store/repositories/bench/stations.ts';
import { openTestStore } from '#store/tests/testStore.ts';
import { countWritten, writeAtOnce } from '#benchmarks/load/manyWriters.ts';
import { askEndpoint, askPath } from '#e2e/support/askEndpoint.ts';
import { deleteRefit } from '#web/endpoints/dialIn/knowledge.ts';

/** Eight people write at once, through the endpoints: every answer is true. */
let db: Store;
let conditionId: number;
let machineId: number;
const troubles: unknown[] = [];
vi.mock('#server/serverContext.ts', () => ({
  serverContext: () => ({
    store: db,
    log: { error: (told: unknown) => troubles.push(told), info: () => undefined },
    feed: { nudge: () => undefined },
    leases: null,
    standIns: null,
    ownPorts: [],
  }),
}));
beforeAll(async () => {
  ({ db, conditionId, machineId } = await openTestStore());
});
afterAll(async () => {
  await askEndpoint(deleteRefit);
  await db.destroy();
});

/** All 1,000 of them are written by `./feather load`, over HTTP. */
const EACH = 8;

it(`${8 * EACH} mixed writes of 8 writers, a third sent twice: no 500, and the book holds what was answered`, async () => {
  const now = new Date();
  const blade = {
    number: 1,
    kind: '45° fine',
    angleDeg: 45,
    lifeMetres: 500,
    offsetMm: 0.25,
    travelMetres: 0,
    reachMm: null,
    holder: '',
    isHardMetal: false,
  };
  const bladeId = await addBlade(db, blade, 'Ines', now);
  await changeStation(db, machineId, { bladeId, conditionId }, 'Ines', now);
  const before = await countWritten(db);
  const told = await writeAtOnce(8, EACH, machineId, 2611, askPath);
  const kept = await countWritten(db);
  expect(troubles).toEqual([]);
  expect([...told.statuses.keys()].filter((status) => status >= 500)).toEqual([]);
  expect(kept.materials.toSorted()).toEqual([...told.materials].toSorted());
  expect(kept.blades.length - before.blades.length).toBe(told.blades.length);
  expect(kept.cuts - before.cuts).toBe(told.cuts);
  expect(kept.revisions - before.revisions).toBe(told.revisions);
  expect(told.materials.length).toBeGreaterThan(EACH / 2);
  expect(told.revisions).toBeGreaterThan(0);
});
