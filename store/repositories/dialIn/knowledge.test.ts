import { afterAll, beforeAll, expect, it } from 'vitest';
import type { Store } from '#store/connection/connectStore.ts';
import { addKnowledge, findNewestKnowledge } from '#store/repositories/dialIn/knowledge.ts';
import { now, openTestStore } from '#store/tests/testStore.ts';

let db: Store;
beforeAll(async () => {
  ({ db } = await openTestStore());
});
afterAll(() => db.destroy());

const MATERIALS = 5_000;
const names = [...Array(60).keys()].map((index) => `effect ${index}`);
const fitted = {
  model: 'test',
  names,
  mean: names.map(() => 0.123456789),
  information: [...Array(3600).keys()].map((index) => index / 7),
  own: Object.fromEntries(
    [...Array(MATERIALS).keys()].map((id) => [String(id), { threshold: id / 3, gap: id / 7, reach: id / 9 }]),
  ),
  trialCount: 1,
  sheetCount: 1,
  iterations: 1,
  logPosterior: 0,
  logMarginal: 0,
  spreads: null,
};

it('keeps where the next fit starts with the newest fit alone: a setting holds a small one', async () => {
  for (let turn = 0; turn < 3; turn++) {
    await addKnowledge(db, { fitted, lastCutId: turn, milliseconds: 1 }, now);
  }
  const rows: { size: number }[] = await db('knowledge')
    .orderBy('id')
    .select(db.raw('LENGTH(fitted) AS size'));
  const [first, second, newest] = rows.map(({ size }) => Number(size));
  expect(newest).toBeGreaterThan(300_000);
  expect(first).toBeLessThan(100_000);
  expect(second).toBeLessThan(100_000);
  const kept = await findNewestKnowledge(db);
  expect(Object.keys(kept?.fitted.own ?? {})).toHaveLength(MATERIALS);
  // A fit of an older version, whose marginal likelihood had another name, opens too.
  const { logMarginal, ...older } = fitted;
  await db('knowledge').update({ fitted: JSON.stringify({ ...older, logEvidence: logMarginal - 12.5 }) });
  expect((await findNewestKnowledge(db))?.fitted.logMarginal).toBe(-12.5);
});
