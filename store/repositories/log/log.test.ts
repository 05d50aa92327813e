import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '#store/connection/connectStore.ts';
import { addAudit, findAudit, listAudit } from '#store/repositories/log/audit.ts';
import { addFaultCase, answerCase, learnFromCases } from '#store/repositories/log/faultCases.ts';
import { startTimer } from '#store/repositories/jobs/waits.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { LOG_KINDS } from '#core/job/logKinds.ts';
import { listLog } from '#store/repositories/log/log.ts';
import { WHOLE_LOG } from '#store/repositories/log/narrowLog.ts';
import { listMaterials } from '#store/repositories/book/materials.ts';
import { setMachineArchived, listMachines } from '#store/repositories/book/machines.ts';
import { addTestCut, undoTestCut } from '#store/repositories/dialIn/testCuts.ts';
import { cut as cleanCut, later, openTestStore, revision } from '#store/tests/testStore.ts';
import { addBlade, careForBlade } from '#store/repositories/bench/tools.ts';
import { undoChange } from '#store/repositories/log/undoChange.ts';

let db: Store;
let conditionId: number;
let machineId: number;
beforeAll(async () => {
  ({ db, conditionId, machineId } = await openTestStore());
});
afterAll(() => db.destroy());

const cut = { ...cleanCut, flaws: ['fuzzy'] } as const;

describe('the log', () => {
  beforeAll(async () => {
    const id = await addTestCut(db, { ...cut, conditionId, machineId }, later(1));
    await undoTestCut(db, id, later(2));
    const key = { conditionId, machineId, bladeKind: '45° fine', operation: 'perforated' } as const;
    await keepRevision(db, key, revision, 0, later(3));
    const blade = await addBlade(
      db,
      { number: 5, kind: '45° fine', angleDeg: 45, offsetMm: 0.25, travelMetres: 3, lifeMetres: 300 },
      'Tove',
      later(4),
    );
    await careForBlade(db, blade, 'clean', 'Tove', later(5));
    const wait = {
      kind: 'inkDry',
      words: 'Gulls: ink dries',
      jobId: null,
      materialId: null,
      minutes: 30,
    } as const;
    await startTimer(db, { ...wait, author: 'Ines' }, later(5));
    const met = {
      machineId,
      conditionId,
      operation: 'kiss',
      symptoms: ['cornersHang'],
      cause: 'forceLow',
    } as const;
    const fault = { ...met, action: 'moreForce', changeWords: '62 to 66 gf', author: 'Ines' } as const;
    const faultId = await addFaultCase(db, fault, later(5));
    await answerCase(db, faultId, true, later(6));
    await setMachineArchived(db, machineId, true, 'Tove', later(6));
  });

  it('tells everything once, the newest first, each with a place to read more', async () => {
    const entries = await listLog(db, 50);
    expect(entries.map(({ kind }) => kind)).toEqual(
      expect.arrayContaining(LOG_KINDS.filter((kind) => kind !== 'run')),
    );
    expect(entries.map(({ at }) => at)).toEqual([...entries.map(({ at }) => at)].sort().reverse());
    expect(new Set(entries.map(({ id }) => id)).size).toBe(entries.length);
    const told = entries.map(({ what }) => what);
    expect(told).toContain('Perforated setting kept, revision 1');
    expect(told).toContain('Blade no. 5 cleaned at 3 m');
    expect(entries.find(({ kind }) => kind === 'fault')).toMatchObject({
      what: 'Fault: corners hang, the rest lifts',
      detail: expect.stringMatching(/a little more force 62 to 66 gf · it helped$/) as string,
    });
    expect(await learnFromCases(db)).toEqual({
      causes: { forceLow: 1 },
      actions: { moreForce: { helped: 1, tried: 1 } },
    });
    expect(told.filter((what) => what.includes('Perforated'))).toHaveLength(1);
    expect(entries.find(({ what }) => what.includes('put away'))?.link).toBe(`/machines/${machineId}`);
  });

  it('marks a test cut that was taken back, and is as long as asked for', async () => {
    const entries = await listLog(db, 50);
    expect(entries.find(({ kind }) => kind === 'testCut')?.detail).toMatch(/taken back/);
    expect(await listLog(db, 2)).toHaveLength(2);
  });

  it('is narrowed to days, a kind, a machine and a material; the parts together are the whole', async () => {
    const whole = (await listLog(db, 500)).map(({ id }) => id);
    const early = await listLog(db, 500, { ...WHOLE_LOG, until: later(3) });
    const late = await listLog(db, 500, { ...WHOLE_LOG, from: later(3) });
    expect(early.length).toBeGreaterThan(0);
    expect(late.length).toBeGreaterThan(0);
    expect(early.every(({ at }) => at < later(3).toISOString())).toBe(true);
    expect([...late, ...early].map(({ id }) => id)).toEqual(whole);
    for (const kind of LOG_KINDS) {
      const own = await listLog(db, 500, { ...WHOLE_LOG, kind });
      expect(own.every((entry) => entry.kind === kind)).toBe(true);
    }
    const ofMachine = await listLog(db, 500, { ...WHOLE_LOG, machineId });
    const kinds = new Set(ofMachine.map(({ kind }) => kind));
    expect([...kinds].sort()).toEqual(['change', 'fault', 'setting', 'testCut']);
    expect(await listLog(db, 500, { ...WHOLE_LOG, machineId: 9999 })).toEqual([]);
    const materialId = (await listMaterials(db))[0]!.id;
    const ofMaterial = await listLog(db, 500, { ...WHOLE_LOG, materialId });
    expect(ofMaterial.some(({ kind }) => kind === 'setting')).toBe(true);
    expect(ofMaterial.some(({ what }) => what.includes('put away'))).toBe(false);
    expect(await listLog(db, 500, { ...WHOLE_LOG, materialId: 9999 })).toEqual([]);
  });
});

describe('the audit trail', () => {
  it('keeps what was before and after, whole, and never changes', async () => {
    const id = await addAudit(
      db,
      {
        entity: 'material',
        entityId: 44,
        action: 'change',
        what: 'x'.repeat(400),
        before: { name: 'Ærø', list: [1, 2] },
        after: null,
        author: 'Ines',
      },
      later(8),
    );
    const entry = await findAudit(db, id);
    expect(entry).toMatchObject({ before: { name: 'Ærø', list: [1, 2] }, after: null, undoes: null });
    expect(entry.what).toHaveLength(300);
    expect(await listAudit(db, { entity: 'material', entityId: 44 }, 5)).toHaveLength(1);
    await expect(findAudit(db, 99_999)).rejects.toMatchObject({ code: 'notFound' });
  });

  it('takes putting away back by taking out, and says which change it answers for', async () => {
    const [away] = await listAudit(db, { entity: 'machine', entityId: machineId }, 1);
    expect((await listMachines(db)).length).toBe(0);
    await undoChange(db, away!.id, 'Ines', later(9));
    expect((await listMachines(db)).length).toBe(1);
    const blade = (await listAudit(db, null, 50)).find(({ entity }) => entity === 'blade')!;
    await expect(undoChange(db, blade.id, 'Ines', later(9))).rejects.toThrow(/cannot be taken back here/);
  });
});
