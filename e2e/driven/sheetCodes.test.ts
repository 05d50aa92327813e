import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { askEndpoint } from '#e2e/support/askEndpoint.ts';
import { writeSheetCode } from '#server/sharing/sheetCode.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { addMachine, listMachines } from '#store/repositories/book/machines.ts';
import { listMaterials } from '#store/repositories/book/materials.ts';
import { listSettingsOf } from '#store/repositories/book/settings.ts';
import { machine, now, openTestStore, revision } from '#store/tests/testStore.ts';
import {
  getSheetCode,
  getSheetFile,
  getSheetLabel,
  postReadCode,
  postTakeCode,
} from '#web/endpoints/sharing/sheetCodes.ts';
import type { ImportReply } from '#web/schemas/book.ts';
import type { ReadCodeReply, SheetCodeReply, TravellingSheetJson } from '#web/schemas/sheetCode.ts';

/** A sheet goes out of a workshop as a code, and comes into one that has other machines. */
let db: Store;
let materialId: number;
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);
beforeAll(async () => {
  const opened = await openTestStore();
  db = opened.db;
  const machineId = await addMachine(db, { ...machine, name: 'Far roller' }, now);
  const [sheet] = await listMaterials(db);
  materialId = sheet?.id ?? 0;
  for (const operation of ['kiss', 'through'] as const) {
    const key = { conditionId: opened.conditionId, machineId, bladeKind: '45° fine', operation };
    await keepRevision(db, key, { ...revision, reason: `${operation} that weeds` }, 0, now);
  }
});
afterAll(() => db.destroy());

type Refused = { readonly error?: { readonly code: string; readonly message: string } };
const codeOf = async () =>
  (await askEndpoint<SheetCodeReply>(getSheetCode, { params: { id: materialId } })).reply;
const read = (text: string) =>
  askEndpoint<ReadCodeReply & Refused>(postReadCode, { role: 'guest', body: { text } });
const take = (text: string, onto: readonly (number | null)[], isDryRun = false) =>
  askEndpoint<ImportReply & Refused>(postTakeCode, { body: { text, onto, isDryRun } });

describe('a sheet as one code', () => {
  it('fits a QR code with its settings, and says what had no room', async () => {
    const code = await codeOf();
    expect(code).toMatchObject({ settings: 2, leftOut: 0 });
    // Room in version 26 at correction L, letters. Source: ISO/IEC 18004, table 7.
    expect(code.code.length).toBeLessThan(1990);
    const label = await askEndpoint<string>(getSheetLabel, { params: { id: materialId } });
    expect(label.reply.slice(0, 5)).toBe('%PDF-');
  });

  it('is taken for what it is by who reads it, and the own sheet stays as it is', async () => {
    const { code } = await codeOf();
    expect((await read(code)).reply).toMatchObject({ kind: 'sheet', isHere: true, settings: 2 });
    const own = (await listMachines(db)).find(({ name }) => name === 'Far roller');
    const { rows } = (await take(code, [own?.id ?? 0])).reply;
    expect(rows.map(({ status }) => status)).toEqual(['refused', 'refused']);
    expect(rows[0]?.detail).toMatch(/your own stays, revision 1/);
  });

  it('comes to a workshop that has neither: its settings are worked out for the machine chosen', async () => {
    const { code } = await codeOf();
    const file = await askEndpoint<TravellingSheetJson>(getSheetFile, { params: { id: materialId } });
    // From here on this is another workshop: it has no such sheet, and a machine that counts in coarser steps.
    await db('materials').where({ id: materialId }).update({ name: 'Something else' });
    const mine = await addMachine(
      db,
      { ...machine, name: 'Mine', forceScale: { ...machine.forceScale, step: 20 } },
      now,
    );
    expect((await read(code)).reply).toMatchObject({
      kind: 'sheet',
      isHere: false,
      machines: [{ name: 'Far roller', settings: 2, likeliestId: expect.any(Number) as number }],
    });
    const tried = await take(code, [mine], true);
    expect(tried.reply.rows.map(({ status }) => status)).toEqual(['new', 'new', 'new']);
    expect(tried.reply.rows.at(-1)?.detail).toMatch(/^90 gf here, from a code: Far roller, 90 gf/);
    expect(await listMaterials(db)).toHaveLength(1);
    expect((await take(code, [mine])).status).toBe(200);
    const arrived = (await listMaterials(db)).find(({ id }) => id !== materialId);
    const kept = await listSettingsOf(db, arrived?.conditions.map(({ id }) => id) ?? []);
    expect(kept.map(({ key }) => [key.machineId, key.operation])).toEqual([
      [mine, 'kiss'],
      [mine, 'through'],
    ]);
    // 90 gf on steps of 20 from 10; it stays a prediction until it was cut.
    expect(kept[0]).toMatchObject({
      state: 'predicted',
      revision: { values: { force: 90 }, author: 'Ines' },
    });
    expect(kept[0]?.revision.reason).toMatch(/^from a code: Far roller, 90 gf/);
    // The same again, from the file: nothing changes.
    const again = await take(JSON.stringify(file.reply), [mine]);
    expect(new Set(again.reply.rows.map(({ status }) => status))).toEqual(new Set(['refused']));
  });

  it('says when the sheet is here and was put away', async () => {
    const { code } = await codeOf();
    expect((await read(code)).reply).toMatchObject({ isHere: true, putAwayId: null });
    await db('materials').where({ id: materialId }).update({ archived_at: now });
    expect((await read(code)).reply).toMatchObject({ isHere: true, putAwayId: materialId });
    await db('materials').where({ id: materialId }).update({ archived_at: null });
  });

  it('knows a sheet that is written in other letters here, as the book does', async () => {
    const { code } = await codeOf();
    const [sheet] = await listMaterials(db);
    const name = sheet?.name ?? '';
    await db('materials').where({ id: materialId }).update({ name: name.toUpperCase() });
    expect(name.toUpperCase()).not.toBe(name);
    expect((await read(code)).reply).toMatchObject({ isHere: true });
    await db('materials').where({ id: materialId }).update({ name });
  });

  it('leaves out what is for machines that nobody chose', async () => {
    const { code } = await codeOf();
    await db('materials').where({ id: materialId }).update({ name: 'Something else again' });
    const { rows } = (await take(code, [null], true)).reply;
    expect(rows.map(({ kind }) => kind)).not.toContain('setting');
  });
});

describe('a code that is read', () => {
  it('of a label leads to its page, whatever address the workshop had then', async () => {
    expect((await read('https://10.0.0.7:4600/settings/12')).reply).toEqual({
      kind: 'page',
      path: '/settings/12',
    });
  });

  it.each([
    ['https://elsewhere.example/free', /no page/],
    ['javascript:alert(1)', /no code of ours/],
    ['hello', /no code of ours/],
    ['{"a": 1', /damaged/],
    ['{"format":"pale-feather-sheet"}', /cannot be read: version/],
    [writeSheetCode('{"format":"pale-feather-sheet","version":1,"machines":[],"settings":[]}'), /material/],
    [writeSheetCode('nothing'), /damaged/],
  ])('%s is refused', async (text, words) => {
    const { status, reply } = await read(text);
    expect(status).toBe(400);
    expect(reply.error?.message).toMatch(words);
  });

  it('is taken onto machines of this workshop alone', async () => {
    const { code } = await codeOf();
    expect((await take(code, [99_999])).status).toBe(404);
    const guest = await askEndpoint(postTakeCode, {
      role: 'guest',
      body: { text: code, onto: [], isDryRun: true },
    });
    expect(guest.status).toBe(403);
  });
});
