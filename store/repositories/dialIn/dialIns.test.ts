import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { DialIn } from '#core/dialIn/dialIn.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { Store } from '#store/connection/connectStore.ts';
import {
  addGrades,
  changeLastFlaws,
  changeDialIn,
  findDialIn,
  listOpenDialIns,
  openDialIn,
  undoLastGrades,
  type NewDialIn,
} from '#store/repositories/dialIn/dialIns.ts';
import { readBookEvidence, readCutSources } from '#store/repositories/dialIn/evidence.ts';
import {
  addJudgedPiece,
  listJudgedPieces,
  undoJudgedPiece,
} from '#store/repositories/dialIn/judgedPieces.ts';
import {
  addKnowledge,
  dropPrior,
  findKnowledgeIdAndPriors,
  findNewestKnowledge,
  findPriors,
  listOwnPriors,
  setPrior,
} from '#store/repositories/dialIn/knowledge.ts';
import { countTestCuts, listTestCuts } from '#store/repositories/dialIn/testCuts.ts';
import { findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { later, machine, now, openTestStore } from '#store/tests/testStore.ts';

let db: Store;
let machineId = 0;
let conditionId = 0;
let machines = 0;
beforeAll(async () => {
  ({ db, conditionId } = await openTestStore());
});
afterAll(() => db.destroy());
beforeEach(async () => {
  machines += 1;
  machineId = await addMachine(db, { ...machine, name: `Cutter ${machines}` }, now);
});

const given = (): NewDialIn => ({
  machineId,
  conditionId,
  lot: '',
  colour: '',
  operation: 'kiss',
  passes: 1,
  speed: 200,
  exposureMm: 0.3,
  scrap: { widthMm: 150, heightMm: 100, piece: 'square', taken: [] },
  author: 'Ines',
});
const cut = (force: number, grade: DepthGrade) => ({
  conditionId,
  machineId,
  operation: 'kiss' as const,
  force,
  forceGf: force,
  speedMmPerS: 200,
  passes: 1,
  exposureMm: 0.3,
  bladeMetres: 12,
  grade,
  flaws: [],
  author: 'Ines',
});
const card = { load: 1, purpose: 'ladder', forces: [60, 70, 80, 90] } as const;

async function withCard(): Promise<DialIn> {
  const { id, version } = await openDialIn(db, given(), now);
  return changeDialIn(db, id, version, { card }, later(1));
}

describe('a dial-in', () => {
  it('is joined by whoever comes second, also at the same moment', async () => {
    const all = await Promise.all([1, 2, 3, 4].map(() => openDialIn(db, given(), now)));
    expect(new Set(all.map(({ id }) => id)).size).toBe(1);
    expect(await listOpenDialIns(db, machineId)).toHaveLength(1);
    const through = await openDialIn(db, { ...given(), operation: 'through' }, now);
    expect(through.id).not.toBe(all[0]!.id);
  });

  it('refuses a change based on an old version, and says so', async () => {
    const { id, version } = await openDialIn(db, given(), now);
    expect(await changeDialIn(db, id, version, { passes: 2 }, later(1))).toMatchObject({
      passes: 2,
      speed: 200,
    });
    await expect(changeDialIn(db, id, version, { passes: 3 }, later(2))).rejects.toThrow(
      /Somebody else changed/,
    );
    expect((await findDialIn(db, id)).passes).toBe(2);
  });

  it('takes all grades of a card or none, each cell once', async () => {
    const { id } = await withCard();
    await addGrades(db, id, 1, [{ cut: cut(60, 1), cell: 0 }], later(2));
    const rest = [1, 0, 2].map((cell) => ({ cut: cut(card.forces[cell]!, 3), cell }));
    await expect(addGrades(db, id, 1, rest, later(3))).rejects.toThrow(/graded cell 1 already/);
    expect(await listTestCuts(db, conditionId, machineId)).toHaveLength(1);
    expect((await findDialIn(db, id)).card).not.toBeNull();
    await addGrades(
      db,
      id,
      1,
      [1, 2, 3].map((cell) => ({ cut: cut(card.forces[cell]!, 3), cell })),
      later(4),
    );
    expect((await findDialIn(db, id)).card).toBeNull();
    const cuts = await listTestCuts(db, conditionId, machineId);
    expect(cuts.map(({ dialInId, load, cell }) => [dialInId, load, cell])).toEqual(
      [0, 1, 2, 3].map((cell) => [id, 1, cell]),
    );
  });

  it('lets only one of two grade a cell when both tap at once', async () => {
    const { id } = await withCard();
    const grades = [{ cut: cut(60, 1), cell: 0 }];
    const results = await Promise.allSettled([1, 2, 3].map(() => addGrades(db, id, 1, grades, later(2))));
    expect(results.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
    expect(await listTestCuts(db, conditionId, machineId)).toHaveLength(1);
  });

  it('gives a card back whole when its grades are taken back, single cuts one by one', async () => {
    const { id } = await withCard();
    await addGrades(
      db,
      id,
      1,
      card.forces.map((force, cell) => ({ cut: cut(force, 3), cell })),
      later(2),
    );
    await addGrades(db, id, null, [{ cut: cut(85, 4), cell: null }], later(3));
    await undoLastGrades(db, id, later(4));
    expect(await listTestCuts(db, conditionId, machineId)).toHaveLength(4);
    await undoLastGrades(db, id, later(5));
    expect(await listTestCuts(db, conditionId, machineId)).toHaveLength(0);
    expect((await findDialIn(db, id)).card).toEqual(card);
    await expect(undoLastGrades(db, id, later(6))).rejects.toThrow(/nothing|no grade/);
    expect(await db('test_cuts').where({ dial_in_id: id })).toHaveLength(5);
  });

  it('takes flaws for the last cut, and for no other', async () => {
    const { id } = await openDialIn(db, given(), now);
    await addGrades(db, id, null, [{ cut: cut(70, 2), cell: null }], later(1));
    await addGrades(db, id, null, [{ cut: cut(80, 3), cell: null }], later(2));
    const [first, last] = await listTestCuts(db, conditionId, machineId);
    const { version } = await findDialIn(db, id);
    await changeLastFlaws(db, id, { cutId: last!.id, flaws: ['fuzzy', 'dragged'] }, later(3));
    const flaws = async () => (await listTestCuts(db, conditionId, machineId)).map((one) => one.flaws);
    expect(await flaws()).toEqual([[], ['fuzzy', 'dragged']]);
    expect((await findDialIn(db, id)).version).toBe(version + 1);
    await expect(changeLastFlaws(db, id, { cutId: first!.id, flaws: ['torn'] }, later(4))).rejects.toThrow(
      /Another cut came/,
    );
    await changeLastFlaws(db, id, { cutId: last!.id, flaws: [] }, later(5));
    expect(await flaws()).toEqual([[], []]);
  });

  it('gives the same card back when it was put away half graded', async () => {
    const { id } = await withCard();
    await addGrades(db, id, 1, [{ cut: cut(70, 3), cell: 1 }], later(2));
    const { version } = await findDialIn(db, id);
    await changeDialIn(db, id, version, { card: null }, later(3));
    await undoLastGrades(db, id, later(4));
    expect((await findDialIn(db, id)).card).toEqual(card);
    expect(await listTestCuts(db, conditionId, machineId)).toHaveLength(0);
  });

  it('keeps a range where a card was graded by its boundaries', async () => {
    const { id } = await withCard();
    await addGrades(db, id, 1, [{ cut: { ...cut(60, 0), upTo: 2 }, cell: 0 }], later(2));
    expect((await listTestCuts(db, conditionId, machineId))[0]).toMatchObject({ grade: 0, upTo: 2 });
  });

  it('is over when it was kept or closed: no grade is lost into it', async () => {
    const { id, version } = await openDialIn(db, given(), now);
    await changeDialIn(db, id, version, { state: 'closed' }, later(1));
    await expect(addGrades(db, id, null, [{ cut: cut(60, 1), cell: null }], later(2))).rejects.toThrow(
      /was closed/,
    );
    expect((await openDialIn(db, given(), later(3))).id).not.toBe(id);
    await expect(findDialIn(db, 9999)).rejects.toThrow(/no dial-in 9999/);
  });
});

describe('knowledge', () => {
  it('is fitted from the cuts of the book, without those taken back, and comes back as it was kept', async () => {
    const { id } = await openDialIn(db, given(), now);
    await addGrades(db, id, null, [{ cut: cut(60, 1), cell: null }], later(1));
    await addGrades(db, id, null, [{ cut: cut(90, 3), cell: null }], later(2));
    await undoLastGrades(db, id, later(3));
    const { sheets, lastCutId } = await readBookEvidence(db);
    const own = sheets.filter((sheet) => sheet.machineId === machineId);
    expect(own).toHaveLength(1);
    expect(own[0]!.trials.map(({ forceGf }) => forceGf)).toEqual([60]);
    const fitted = fitKnowledge(sheets);
    const kept = await addKnowledge(db, { fitted, lastCutId, milliseconds: 12 }, now);
    expect((await findKnowledgeIdAndPriors(db)).knowledgeId).toBe(kept);
    expect(await findNewestKnowledge(db)).toMatchObject({ id: kept, lastCutId, fitted });
  });

  it('keeps the last twenty fits', async () => {
    const fitted = fitKnowledge([]);
    for (let fit = 0; fit < 24; fit++)
      await addKnowledge(db, { fitted, lastCutId: fit, milliseconds: 1 }, later(fit));
    expect(await db('knowledge')).toHaveLength(20);
    expect((await findNewestKnowledge(db))!.lastCutId).toBe(23);
  });

  it('starts from the beliefs of the workshop where it has its own', async () => {
    const own = {
      name: 'wear',
      mean: 0.3,
      sd: 0.05,
      reason: 'our blades dull fast',
      author: 'Tove',
    } as const;
    await setPrior(db, own, now);
    await setPrior(db, { ...own, mean: 0.4 }, now);
    expect((await findPriors(db)).beliefs.wear).toMatchObject({ mean: 0.4, sd: 0.05 });
    expect(await listOwnPriors(db)).toHaveLength(1);
    await expect(setPrior(db, { ...own, sd: 0 }, now)).rejects.toThrow(/not above 0/);
    await expect(setPrior(db, { ...own, mean: 9 }, now)).rejects.toThrow(/beyond ±5/);
    await dropPrior(db, 'wear');
    expect((await findPriors(db)).beliefs.wear.mean).toBe(0.2);
  });

  it('reads no run as evidence that nobody noted', async () => {
    const { id } = await openDialIn(db, given(), now);
    await addGrades(db, id, null, [{ cut: cut(60, 1), cell: null }], later(1));
    const { material } = await findMaterialByCondition(db, conditionId);
    const own = (await readCutSources(db, material)).filter(({ machine: at }) => at.id === machineId);
    expect(own.flatMap(({ runs }) => runs)).toEqual([]);
    expect(own.flatMap(({ cuts }) => cuts)).toHaveLength(1);
    expect((await countTestCuts(db)).get(machineId)).toBe(1);
  });
});

describe('judged pieces', () => {
  it('come back in order, without those taken back', async () => {
    const piece = {
      quantity: 'tabs',
      given: { tabLengthMm: 1, cutLengthMm: 12 },
      author: 'Ines',
      lot: '',
      conditionId,
      machineId,
    } as const;
    const first = await addJudgedPiece(db, { ...piece, seen: 1 }, now);
    await addJudgedPiece(db, { ...piece, seen: 2 }, later(1));
    await undoJudgedPiece(db, first, later(2));
    const pieces = await listJudgedPieces(db, conditionId, machineId, 'tabs');
    expect(pieces.map(({ seen }) => seen)).toEqual([2]);
    await expect(undoJudgedPiece(db, first, later(3))).rejects.toThrow(/taken back already/);
    expect(await listJudgedPieces(db, conditionId, machineId, 'crease')).toEqual([]);
  });
});
