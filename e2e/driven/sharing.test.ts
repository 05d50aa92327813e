import { generateKeyPairSync } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import type { Lessons } from '#core/sharing/lessons.ts';
import { writeBook } from '#core/tests/writeBook.ts';
import { MODEL_VERSION } from '#core/threshold/sheetModel/sheetModel.ts';
import { askEndpoint } from '#e2e/support/askEndpoint.ts';
import { openLessons, signLessons, type SignedLessons } from '#server/sharing/signLessons.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { addKnowledge, findPriors, setPrior } from '#store/repositories/dialIn/knowledge.ts';
import { machine, now, openTestStore } from '#store/tests/testStore.ts';
import { getOwnLessons, getSharing, patchLessons, postLessons } from '#web/endpoints/sharing/sharing.ts';
import type { SharingReply } from '#web/schemas/sharing.ts';

/** What a book learnt goes out without a name, and comes in as where another one starts. */
let db: Store;
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);
vi.mock('#web/workers/refitKnowledge.ts', () => ({ requestRefit: () => undefined }));
beforeAll(async () => {
  ({ db } = await openTestStore());
});
afterAll(() => db.destroy());

const lessons: Lessons = {
  format: 'pale-feather-lessons',
  version: 1,
  model: MODEL_VERSION,
  trials: 400,
  sheets: 60,
  effects: [
    { name: 'family:plainVinyl', mean: 0.25, sd: 0.03 },
    { name: 'ink', mean: 0.5, sd: 0.02 },
    { name: 'kind:rollFed', mean: 0.2, sd: 0.02 },
  ],
};
const newKey = () =>
  generateKeyPairSync('ed25519').privateKey.export({ type: 'pkcs8', format: 'pem' }) as string;
const take = (signed: SignedLessons, name = 'Harbour signs') =>
  askEndpoint<SharingReply & { error?: { code: string; message: string } }>(postLessons, {
    role: 'owner',
    body: { name, signed },
  });

describe('what another workshop learnt', () => {
  const key = newKey();

  it('is where this one starts, and says what it moved', async () => {
    const machineId = await addMachine(db, { ...machine, name: 'Roller' }, now);
    const before = await findPriors(db);
    expect(before.told).toBeUndefined();
    const { status, reply } = await take(signLessons(lessons, key));
    expect(status).toBe(201);
    expect(reply.taken[0]).toMatchObject({ name: 'Harbour signs', trials: 400, isFitting: true });
    expect(reply.taken[0]?.moved.map(({ name }) => name)).toContain('family:plainVinyl');
    const { told } = await findPriors(db);
    const { mean: common, sd } = before.beliefs.layeredOffset;
    expect(told?.['family:plainVinyl']?.mean).toBeGreaterThan(common);
    expect(told?.['family:plainVinyl']?.sd).toBeLessThan(sd);
    expect(told?.[`machine:${machineId}`]?.mean).toBeGreaterThan(0);
  });

  it('stands behind a belief of one’s own', async () => {
    await setPrior(db, { name: 'ink', mean: 0.1, sd: 0.1, reason: 'ours', author: 'Ines' }, now);
    expect((await findPriors(db)).told?.['ink']).toBeUndefined();
  });

  it('makes room for what the same workshop tells later', async () => {
    const later = { ...lessons, trials: 900 };
    const { reply } = await take(signLessons(later, key), 'Harbour signs, spring');
    expect(reply.taken.map(({ trials }) => trials)).toEqual([900]);
  });

  it('is put away and believed again', async () => {
    const [one] = (await askEndpoint<SharingReply>(getSharing, { role: 'guest' })).reply.taken;
    const put = (isPutAway: boolean) =>
      askEndpoint(patchLessons, { role: 'owner', params: { id: one?.id ?? 0 }, body: { isPutAway } });
    await put(true);
    expect((await findPriors(db)).told).toBeUndefined();
    await put(false);
    expect((await findPriors(db)).told).toBeDefined();
  });

  it('of another version of the model is kept and not believed', async () => {
    const { reply } = await take(signLessons({ ...lessons, model: 'hierarchical 9' }, newKey()), 'Later');
    expect(reply.taken.at(-1)).toMatchObject({ isFitting: false, moved: [] });
  });

  it.each([
    [
      'changed on its way',
      (signed: SignedLessons) => ({ ...signed, text: signed.text.replace('0.25', '0.95') }),
    ],
    [
      'signed by another',
      (signed: SignedLessons) => ({ ...signed, publicKey: signLessons(lessons, newKey()).publicKey }),
    ],
    ['with no key at all', (signed: SignedLessons) => ({ ...signed, publicKey: 'AAAA' })],
    ['that are no lessons', () => signLessons({ hello: 'there' } as unknown as Lessons, newKey())],
    [
      'with an effect beyond belief',
      () => signLessons({ ...lessons, effects: [{ name: 'ink', mean: 900, sd: 0.1 }] }, newKey()),
    ],
  ])('is refused %s, and nothing is kept', async (_, change) => {
    const count = async () =>
      (await askEndpoint<SharingReply>(getSharing, { role: 'guest' })).reply.taken.length;
    const before = await count();
    const { status, reply } = await take(change(signLessons(lessons, newKey())));
    expect(status).toBe(400);
    expect(reply.error?.code).toBe('badInput');
    expect(await count()).toBe(before);
  });
});

describe('what this book learnt', () => {
  it('is nothing to give away at first', async () => {
    const { status } = await askEndpoint(getOwnLessons, { role: 'owner' });
    expect(status).toBe(409);
  });

  it('goes out signed, as effects of families and kinds, without a name; its own is not taken in', async () => {
    const truth = { machines: [0.12, -0.1, 0], families: { cardstock: -0.25 } };
    const fitted = fitKnowledge(writeBook(40, truth, seededRandom(8)));
    await addKnowledge(db, { fitted, lastCutId: 1, milliseconds: 1 }, now);
    const { status, reply } = await askEndpoint<SignedLessons>(getOwnLessons, { role: 'owner' });
    expect(status).toBe(200);
    const opened = openLessons(reply);
    expect(opened.lessons.trials).toBe(fitted.trialCount);
    expect(JSON.stringify(reply)).not.toMatch(/Ines|Roller|Ærø|O’Test/);
    const again = await take(reply);
    expect(again.status).toBe(409);
    // Asked again, it is the same workshop.
    const second = await askEndpoint<SignedLessons>(getOwnLessons, { role: 'owner' });
    expect(openLessons(second.reply).giver).toBe(opened.giver);
  });
});
