import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { indexNote, searchMaterials } from '#store/repositories/book/lookup.ts';
import { findAnswers } from '#store/repositories/book/lookupAnswers.ts';
import {
  addMaterial,
  changeMaterial,
  findMaterial,
  listMaterials,
  setMaterialArchived,
} from '#store/repositories/book/materials.ts';
import { refreshDerived } from '#store/repositories/dialIn/refreshDerived.ts';
import { changeStation, findStation } from '#store/repositories/bench/stations.ts';
import { layer, later, material, now, openTestStore } from '#store/tests/testStore.ts';
import {
  addBlade,
  addMat,
  careForBlade,
  careForMat,
  changeMat,
  listBlades,
  listCare,
  listMats,
  listMatStints,
} from '#store/repositories/bench/tools.ts';
import { undoChange } from '#store/repositories/log/undoChange.ts';

let db: Store;
let machineId: number;
beforeAll(async () => {
  ({ db, machineId } = await openTestStore());
});
afterAll(() => db.destroy());

const names = async (text: string) => {
  const hits = await searchMaterials(db, text, 9);
  const found = await findAnswers(
    db,
    hits.map(({ materialId }) => materialId),
    machineId,
  );
  return found.map(({ name }) => name);
};

describe('a material', () => {
  it('is changed whole, its states keep their ids, and the change can be taken back', async () => {
    const [before] = await listMaterials(db);
    const { id, conditions, version, isArchived, ...facts } = before!;
    const lot = {
      code: '26-B',
      receivedOn: '2026-01-02',
      storage: '',
      humidityPercent: 50,
      forcePercent: 5,
      note: '',
      isArchived: false,
    };
    const change = {
      ...facts,
      details: { ...NO_DETAILS, nicknames: ['the blue one'], lots: [lot] },
      conditions: [
        ...conditions,
        { kind: 'laminated' as const, stack: [layer('laminate', 40), ...conditions[0]!.stack] },
      ],
    };
    const undo = await changeMaterial(db, id, change, version, 'Ines', now);
    const after = await findMaterial(db, id);
    expect(after.details.lots).toEqual([lot]);
    expect(after.conditions.map(({ kind }) => kind)).toEqual(['bare', 'laminated']);
    expect(after.conditions[0]!.id).toBe(conditions[0]!.id);
    await expect(changeMaterial(db, id, change, version, 'Tove', now)).rejects.toMatchObject({
      code: 'conflict',
    });
    await undoChange(db, undo, 'Ines', now);
    expect((await findMaterial(db, id)).details).toEqual(NO_DETAILS);
    await expect(undoChange(db, undo, 'Ines', now)).rejects.toMatchObject({ code: 'conflict' });
  });

  it('refuses the name of another and an impossible stack, and stays as it was', async () => {
    const [first] = await listMaterials(db);
    const otherId = await addMaterial(db, { ...material, name: 'Second' }, now);
    const other = await findMaterial(db, otherId);
    await expect(
      changeMaterial(db, otherId, { ...other, name: first!.name }, 1, 'Ines', now),
    ).rejects.toMatchObject({ code: 'conflict' });
    const odd = { ...other, conditions: [{ kind: 'bare' as const, stack: [layer('liner', 80)] }] };
    await expect(changeMaterial(db, otherId, odd, 1, 'Ines', now)).rejects.toMatchObject({
      code: 'badInput',
    });
    expect(await findMaterial(db, otherId)).toEqual(other);
  });

  it('is left out when put away, and comes back by undo', async () => {
    const id = await addMaterial(db, { ...material, name: 'Away film' }, now);
    const undo = await setMaterialArchived(db, id, true, 'Ines', now);
    expect(await names('away')).toEqual([]);
    expect((await listMaterials(db)).map(({ name }) => name)).not.toContain('Away film');
    await undoChange(db, undo, 'Ines', now);
    expect(await names('away')).toEqual(['Away film']);
  });
});

describe('the lookup', () => {
  beforeAll(async () => {
    const details = { ...NO_DETAILS, nicknames: ['mackerel skin'], product: 'PH-110' };
    await addMaterial(
      db,
      { ...material, name: 'Phosphor film', maker: 'Tarn', finish: 'holographic', details },
      now,
    );
    await addMaterial(
      db,
      { ...material, name: 'Mooring vinyl', maker: 'Oldstrand', colourName: 'navy' },
      now,
    );
  });

  it.each([
    ['phosphor', 'Phosphor film'],
    ['PHOSPH', 'Phosphor film'],
    ['phospohr', 'Phosphor film'],
    ['hologrpahic tarn', 'Phosphor film'],
    ['mackrel', 'Phosphor film'],
    ['ph110', 'Phosphor film'],
    ['PH-110', 'Phosphor film'],
    ['navy oldstrnd', 'Mooring vinyl'],
    ['moring bare', 'Mooring vinyl'],
  ])('finds by "%s"', async (text, name) => {
    expect((await names(text))[0]).toBe(name);
  });

  it('shows the nearest where nothing has every word, finds old notes, and nothing for what is not there', async () => {
    expect((await names('mooring holographic')).toSorted()).toEqual(['Mooring vinyl', 'Phosphor film']);
    expect((await names('mooring 90'))[0]).toBe('Mooring vinyl');
    expect(await names('xylophone')).toEqual([]);
    expect(await names('  ')).toEqual([]);
    const [hit] = await searchMaterials(db, 'mooring', 1);
    await indexNote(db, hit!.materialId, 'hung at the gulls; "quoted" %_');
    expect(await names('gulls')).toEqual(['Mooring vinyl']);
    expect(await names('%_')).toEqual([]);
  });

  it('forgets the old name of a renamed material', async () => {
    const [hit] = await searchMaterials(db, 'mooring', 1);
    const there = await findMaterial(db, hit!.materialId);
    await changeMaterial(db, there.id, { ...there, name: 'Anchor vinyl' }, there.version, 'Ines', now);
    expect(await names('mooring')).toEqual([]);
    expect(await names('anchor')).toEqual(['Anchor vinyl']);
  });

  it('is made for a book from before it, once', async () => {
    for (const table of ['lookup_postings', 'lookup_grams', 'lookup_terms']) await db(table).delete();
    await db('material_conditions').update({ family: '' });
    await refreshDerived(db);
    expect(await names('phosphor')).toEqual(['Phosphor film']);
    await db('lookup_postings').delete();
    await refreshDerived(db);
    expect(await names('phosphor')).toEqual([]);
  });
});

describe('blades and mats', () => {
  it('are fitted, taken off, cleaned and retired, and each keeps its own story', async () => {
    const first = await addBlade(db, {
      number: 1,
      kind: '45° fine',
      angleDeg: 45,
      offsetMm: 0.25,
      travelMetres: 12,
      lifeMetres: 300,
    });
    const second = await addBlade(db, {
      number: 2,
      kind: '45° fine',
      angleDeg: 45,
      offsetMm: 0.25,
      travelMetres: 0,
      lifeMetres: 300,
      reachMm: 0.9,
      isHardMetal: true,
    });
    await changeStation(db, machineId, { bladeId: first }, 'Ines', now);
    await careForBlade(db, first, 'clean', 'Ines', later(1));
    await changeStation(db, machineId, { bladeId: second }, 'Ines', later(2));
    await careForBlade(db, first, 'retire', 'Tove', later(3));
    expect((await listCare(db))[`blade-${first}`]!.map(({ what }) => what)).toEqual([
      'Blade no. 1 retired at 12 m',
      'Blade no. 1 (45° fine) taken off Test cutter at 12 m',
      'Blade no. 1 cleaned at 12 m',
      'Blade no. 1 (45° fine) fitted to Test cutter at 12 m',
    ]);
    await expect(changeStation(db, machineId, { bladeId: first }, 'Ines', now)).rejects.toThrow(
      /bring it back first/,
    );
    await careForBlade(db, second, 'retire', 'Tove', later(4));
    expect((await findStation(db, machineId)).blade).toBeNull();
    expect((await listBlades(db)).find(({ id }) => id === second)).toMatchObject({
      reachMm: 0.9,
      isHardMetal: true,
    });
  });

  it('count loads since they were washed and re-stuck', async () => {
    const id = await addMat(db, { number: 4, tack: 'standard', uses: 20, widthMm: 300, heightMm: 300 });
    await careForMat(db, id, 'clean', 'Ines', now);
    await careForMat(db, id, 'restick', 'Ines', now);
    await changeMat(db, id, { hasGrooves: true }, 'Ines', now);
    await changeStation(db, machineId, { matId: id }, 'Ines', now);
    expect((await listMats(db))[0]).toMatchObject({
      usesAtCleaning: 20,
      usesAtRestick: 20,
      hasGrooves: true,
      firstUsedAt: now.toISOString(),
    });
    await expect(careForMat(db, 99, 'clean', 'Ines', now)).rejects.toMatchObject({ code: 'notFound' });
  });

  it('tell after how many loads they were given up, by their class', async () => {
    expect(await listMatStints(db, 'standard')).toEqual([20]);
    expect(await listMatStints(db, 'strong')).toEqual([]);
    const other = await addMat(db, { number: 5, tack: 'standard', uses: 0, widthMm: 300, heightMm: 300 });
    await db('mats').where({ id: other }).update({ uses: 30 });
    await careForMat(db, other, 'restick', 'Ines', now);
    await db('mats').where({ id: other }).update({ uses: 64 });
    await careForMat(db, other, 'restick', 'Ines', later(1));
    await db('mats').where({ id: other }).update({ uses: 90 });
    await careForMat(db, other, 'retire', 'Ines', later(2));
    // Re-stuck twice within 64 loads, then given up after 26 more.
    expect((await listMatStints(db, 'standard')).toSorted((a, b) => a - b)).toEqual([20, 26, 32, 32]);
  });
});
