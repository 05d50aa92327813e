import { createHash, randomBytes } from 'node:crypto';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { nameKeptPicture } from '#core/drawing/keptPicture.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addJob, findJob } from '#store/repositories/jobs/jobs.ts';
import {
  findPictures,
  findSmallPictures,
  forgetPictures,
  keepPicture,
} from '#store/repositories/jobs/pictures.ts';
import { smallJob } from '#store/tests/smallJob.ts';
import { now, openTestStore } from '#store/tests/testStore.ts';

let db: Store;
let facts: { readonly conditionId: number; readonly machineId: number };
beforeAll(async () => {
  const opened = await openTestStore();
  ({ db } = opened);
  facts = opened;
});
afterAll(() => db.destroy());

function draw(bytes: number) {
  const data = randomBytes(bytes);
  const sha256 = createHash('sha256').update(data).digest('hex');
  const address = nameKeptPicture(sha256, { widthPx: 9, heightPx: 9 }, 'png');
  return { address, data, small: data.subarray(0, 40), profile: null };
}
const drawn = (address: string) => `<svg><image href="${address}" width="9" height="9"/></svg>`;
const twoDaysLater = new Date(now.getTime() + 2 * 24 * 60 * 60 * 1000);

it('a picture of many megabytes comes back byte for byte, and small', async () => {
  const picture = { ...draw(5_000_001), profile: randomBytes(500) };
  await keepPicture(db, picture, now);
  await Promise.all([keepPicture(db, picture, now), keepPicture(db, picture, now)]);
  const exact = (await findPictures(db, [picture.address])).get(picture.address)!;
  expect(Buffer.compare(exact.data as Buffer, picture.data)).toBe(0);
  expect(Buffer.compare(exact.profile as Buffer, picture.profile)).toBe(0);
  expect([...(await findSmallPictures(db, [picture.address])).get(picture.address)!]).toEqual([
    ...picture.small,
  ]);
});

it('what a drawing names stays; what nobody used is gone after a day', async () => {
  const [used, unused] = [draw(100), draw(100)];
  for (const one of [used, unused]) await keepPicture(db, one, now);
  const id = await addJob(
    db,
    { ...smallJob(facts.conditionId, facts.machineId), source: drawn(used.address) },
    now,
  );
  await forgetPictures(db, now);
  expect((await findPictures(db, [unused.address])).size).toBe(1);
  await forgetPictures(db, twoDaysLater);
  expect((await findJob(db, id)).source).toContain(used.address);
  expect((await findPictures(db, [used.address])).size).toBe(1);
  await expect(findPictures(db, [unused.address])).rejects.toThrow(/not kept here/);
});

it('a drawing whose picture is not kept here is refused, also further ones', async () => {
  const job = smallJob(facts.conditionId, facts.machineId);
  const foreign = drawn(draw(10).address);
  await expect(addJob(db, { ...job, source: foreign }, now)).rejects.toThrow(/bring its file again/);
  const { roles, lineRoles, edits, areRolesGuessed } = job;
  const more = {
    number: 1,
    name: 'Auk',
    format: 'svg' as const,
    source: foreign,
    roles,
    lineRoles,
    edits,
    areRolesGuessed,
  };
  const before = await db('jobs').count();
  await expect(addJob(db, { ...job, moreDrawings: [more] }, now)).rejects.toThrow(/bring its file again/);
  expect(await db('jobs').count()).toEqual(before);
});
