import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BookSetting } from '#core/book/bookSetting.ts';
import type { SettingKey } from '#core/setting/setting.ts';
import type { Operation } from '#core/stack/operation.ts';
import { fitForceScale } from '#core/units/fitForceScale.ts';
import { forceToGf } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listAudit } from '#store/repositories/log/audit.ts';
import { addCalibration, removeCalibration } from '#store/repositories/book/calibrations.ts';
import { importBook } from '#store/repositories/book/importBook.ts';
import { keepRevision, setSettingArchived, setSettingLocked } from '#store/repositories/book/keepSettings.ts';
import { addMachine, changeMachine, findMachine } from '#store/repositories/book/machines.ts';
import { addMaterial, findMaterial } from '#store/repositories/book/materials.ts';
import { findNearSettings } from '#store/repositories/book/relatives.ts';
import { countSettings, pageSettings } from '#store/repositories/book/settingPages.ts';
import { findSetting, findSettingOfAnyBlade, listRevisions } from '#store/repositories/book/settings.ts';
import { changeStation } from '#store/repositories/bench/stations.ts';
import { later, machine, material, now, openTestStore, revision } from '#store/tests/testStore.ts';
import { undoChange } from '#store/repositories/log/undoChange.ts';

let db: Store;
let conditionId: number;
let machineId: number;
const key = (operation: Operation, bladeKind = '45° fine'): SettingKey => ({
  conditionId,
  machineId,
  bladeKind,
  operation,
});
const keep = (of: SettingKey, force: number, basedOn: number, change: object = {}) =>
  keepRevision(
    db,
    of,
    { ...revision, values: { ...revision.values, force, ...change } },
    basedOn,
    later(basedOn),
  );

beforeAll(async () => {
  ({ db, conditionId, machineId } = await openTestStore());
});
afterAll(() => db.destroy());

describe('kept settings', () => {
  it('carry the kiss force to the tabs of the perforation, as a revision that says so, locked or not', async () => {
    await keep(key('kiss'), 90, 0);
    await keep(key('perforated'), 180, 0, { tabForce: 90, cutLengthMm: 17, tabLengthMm: 1.2 });
    const { id } = (await findSetting(db, key('perforated')))!;
    await setSettingLocked(db, id, true, 'Ines', now);
    await keep(key('kiss'), 96, 1);
    const followed = (await findSetting(db, key('perforated')))!;
    expect(followed.revision).toMatchObject({
      revision: 2,
      values: { force: 180, tabForce: 96 },
      reason: expect.stringContaining('kept in step'),
    });
    await setSettingLocked(db, id, false, 'Ines', now);
  });

  it('refuse people while locked, and keep who locked and opened them', async () => {
    const { id } = (await findSetting(db, key('kiss')))!;
    await setSettingLocked(db, id, true, 'Tove', now);
    await expect(keep(key('kiss'), 99, 2)).rejects.toThrow(/Tove locked this setting/);
    await setSettingLocked(db, id, false, 'Tove', now);
    expect((await listAudit(db, { entity: 'setting', entityId: id }, 9)).map(({ action }) => action)).toEqual(
      ['unlock', 'lock', 'change', 'add'],
    );
    expect(await listRevisions(db, id)).toHaveLength(2);
  });

  it('become doubted when another lot lies on the machine, and are not when the old one comes back', async () => {
    const lotted = { ...revision, lot: 'A-1' };
    await keepRevision(db, key('kiss'), lotted, 2, later(3));
    const stateOn = async (lot: string) => {
      await changeStation(db, machineId, { conditionId, lot }, 'Ines', now);
      return (await findSetting(db, key('kiss')))!;
    };
    expect((await stateOn('A-1')).state).toBe('tried');
    expect(await stateOn('B-2')).toMatchObject({
      state: 'doubted',
      stateReason: expect.stringContaining('lot B-2 is new'),
    });
    expect((await stateOn('A-1')).state).toBe('tried');
  });

  it('answer for another kind of blade only as a start', async () => {
    expect(await findSetting(db, key('kiss', '60° deep'))).toBeNull();
    expect(await findSettingOfAnyBlade(db, key('kiss', '60° deep'))).toMatchObject({
      key: { bladeKind: '45° fine' },
    });
  });

  it('answer nowhere once put away, are still there, and come back', async () => {
    const { id } = (await findSetting(db, key('perforated')))!;
    await setSettingArchived(db, id, true, 'Ines', now);
    expect(await findSetting(db, key('perforated'))).toBeNull();
    const away = await pageSettings(db, { isArchived: true, materialIds: null }, null);
    expect(away.settings.map((setting) => setting.id)).toEqual([id]);
    const [entry] = await listAudit(db, { entity: 'setting', entityId: id }, 1);
    await undoChange(db, entry!.id, 'Ines', now);
    expect((await findSetting(db, key('perforated')))?.id).toBe(id);
  });

  it('come in pages of whole materials, each once, and any cursor is safe', async () => {
    for (let index = 0; index < 30; index++) {
      const name = `Page ${String(index).padStart(2, '0')}`;
      const id = await addMaterial(db, { ...material, name }, now);
      const [state] = (await findMaterial(db, id)).conditions;
      await keep({ ...key('kiss'), conditionId: state!.id }, 80 + index, 0);
      await keep({ ...key('through'), conditionId: state!.id }, 180 + index, 0);
    }
    const all = { isArchived: false, materialIds: null };
    const first = await pageSettings(db, all, null);
    const second = await pageSettings(db, all, first.next);
    expect(first.materialIds).toHaveLength(25);
    expect(second.next).toBeNull();
    const ids = [...first.settings, ...second.settings].map((setting) => setting.id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).toHaveLength(await countSettings(db));
    for (const odd of ['nonsense', 'e30', '"'])
      expect((await pageSettings(db, all, odd)).materialIds).toHaveLength(25);
    const kissed = await pageSettings(db, { ...all, operation: 'kiss', state: 'tried' }, null);
    expect(kissed.settings.every(({ key: { operation } }) => operation === 'kiss')).toBe(true);
  });

  it('of related sheets are found near the face, with their machine', async () => {
    const { maker, family, darkness, conditions } = material;
    const own = { materialId: 1, conditionId, maker, family, darkness, stack: conditions[0]!.stack };
    const near = await findNearSettings(db, own, 'kiss');
    expect(near.length).toBeGreaterThan(5);
    expect(near.every((one) => one.key.operation === 'kiss' && one.machine.id === machineId)).toBe(true);
  });
});

describe('a measured force scale', () => {
  it('takes the place of the plain one until it is taken back', async () => {
    const levels = {
      ...machine,
      name: 'Level cutter',
      forceScale: { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 0, gfPerUnit: 10 },
    } as const;
    const id = await addMachine(db, levels, now);
    const plain = await findMachine(db, id);
    const readings = [2, 12, 22, 32].map((force) => ({ force, grams: 8 * force }));
    const calibration = await addCalibration(
      db,
      id,
      readings,
      fitForceScale(readings, plain.forceScale),
      'Tove',
      now,
    );
    const measured = await findMachine(db, id);
    expect(forceToGf(22, measured.forceScale)).toBeCloseTo(176, 0);
    const { id: _id, isArchived, version, ...facts } = measured;
    await changeMachine(db, id, { ...facts, marginMm: 9 }, version, 'Tove', now);
    expect(forceToGf(22, (await findMachine(db, id)).forceScale)).toBeCloseTo(176, 0);
    await removeCalibration(db, id, calibration, 'Tove', now);
    expect(forceToGf(22, (await findMachine(db, id)).forceScale)).toBe(220);
    await expect(removeCalibration(db, id, calibration, 'Tove', now)).rejects.toMatchObject({
      code: 'notFound',
    });
    expect(isArchived).toBe(false);
  });

  it('does not stop a machine from being changed back', async () => {
    const before = await findMachine(db, machineId);
    const { id, version, isArchived, ...facts } = before;
    const change = await changeMachine(db, id, { ...facts, name: 'Renamed' }, version, 'Ines', now);
    await undoChange(db, change, 'Ines', now);
    expect(await findMachine(db, id)).toMatchObject({ name: before.name, version: version + 2, isArchived });
    await expect(undoChange(db, change, 'Ines', now)).rejects.toMatchObject({ code: 'conflict' });
  });
});

describe('a book read from a file', () => {
  const row = (change: Partial<BookSetting>, line = 1) => ({
    line,
    setting: {
      maker: 'Fulmar & Co',
      material: 'Imported film',
      state: 'bare',
      machine: machine.name,
      blade: '45° fine',
      operation: 'kiss',
      values: { ...revision.values, force: 77 },
      reason: 'from the other workshop',
      author: 'Rasmus',
      keptAt: '',
      ...change,
    } satisfies BookSetting,
  });
  const book = {
    materials: [{ ...material, name: 'Imported film', maker: 'Fulmar & Co' }],
    machines: [],
    settings: [
      row({ operation: 'perforated', values: { ...revision.values, force: 170 } }, 1),
      row({}, 2),
      row({ material: 'Nowhere' }, 3),
      row({ operation: 'through', values: { ...revision.values, force: 9000 } }, 4),
      { line: 5, refused: 'force is missing' },
    ],
  };
  const told = (rows: Awaited<ReturnType<typeof importBook>>) => rows.map(({ status }) => status);

  it('says row by row what it would do, and does none of it', async () => {
    const before = await countSettings(db);
    const rows = await importBook(db, book, true, 'Ines', now);
    expect(told(rows)).toEqual(['new', 'new', 'new', 'refused', 'refused', 'refused']);
    expect(rows.map(({ detail }) => detail).join(' ')).toMatch(
      /no material Nowhere.*10 to 400 gf.*force is missing/,
    );
    expect(await countSettings(db)).toBe(before);
  });

  it('does it in one go, tabs at the kiss force although it stands below, and a second time changes nothing', async () => {
    expect(told(await importBook(db, book, false, 'Ines', now))).toEqual([
      'new',
      'new',
      'new',
      'refused',
      'refused',
      'refused',
    ]);
    expect(told(await importBook(db, book, false, 'Ines', now)).slice(0, 3)).toEqual([
      'same',
      'same',
      'same',
    ]);
    // Only force and speed are said: exposure, offset and overcut stay as they are.
    const changed = { ...book, settings: [row({ values: { force: 79, speed: revision.values.speed } })] };
    const [, second] = await importBook(db, changed, false, 'Ines', now);
    expect(second).toMatchObject({ status: 'changed', detail: 'force 77 to 79' });
    const kept = (await pageSettings(db, { isArchived: false, materialIds: null }, null)).settings.filter(
      ({ revision: { author } }) => author === 'Rasmus',
    );
    expect(kept.find(({ key: { operation } }) => operation === 'perforated')?.revision.values.tabForce).toBe(
      79,
    );
    expect(kept.every(({ state }) => state === 'predicted' || state === 'tried')).toBe(true);
  });
});
