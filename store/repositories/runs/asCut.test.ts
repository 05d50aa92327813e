import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { correctValues } from '#core/setting/correctForce.ts';
import { smallJob } from '#store/tests/smallJob.ts';
import { sampleProgram } from '#core/tests/sampleProgram.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { readBookEvidence } from '#store/repositories/dialIn/evidence.ts';
import { addJob } from '#store/repositories/jobs/jobs.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { changeMaterial, findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { addRunGrade } from '#store/repositories/runs/runGrades.ts';
import { addRun, noteRun } from '#store/repositories/runs/runs.ts';
import { findSetting } from '#store/repositories/book/settings.ts';
import { machine, now, openTestStore, revision } from '#store/tests/testStore.ts';

/** What a run teaches is what was cut, under the lot and the colour that it was cut on. */
let db: Store;
let conditionId: number;
let machineId: number;
let setting: number;
const LOT = { code: 'L10', forcePercent: 10, note: '', receivedAt: null };
const COLOUR = { name: 'navy', hex: '#1d2a4d', darkness: 0.9, forcePercent: 20 };

beforeAll(async () => {
  ({ db, conditionId, machineId } = await openTestStore());
  const { material } = await findMaterialByCondition(db, conditionId);
  const { id, version, isArchived: _, ...same } = material;
  const details = { ...material.details, lots: [LOT as never], colours: [COLOUR as never] };
  await changeMaterial(db, id, { ...same, details }, version, 'Ines', now);
  const key = { conditionId, machineId, bladeKind: '45° fine', operation: 'kiss' } as const;
  await keepRevision(db, key, revision, 0, now);
  setting = (await findSetting(db, key))!.id;
});
afterAll(() => db.destroy());

async function tellRun(lot: string, colour: string, cutForce: number | null) {
  const job = smallJob(conditionId, machineId);
  const cutValues = cutForce === null ? undefined : { ...revision.values, force: cutForce };
  const run = {
    jobId: await addJob(db, job, now),
    machineId,
    conditionId,
    sheetWidthMm: 210,
    sheetHeightMm: 297,
    strokes: [],
    seconds: 4,
    author: 'Ines',
    lot,
    colour,
    bladeMetres: 10,
    program: sampleProgram(1),
    settings: [{ settingId: setting, revision: 1, cutValues }],
  };
  const id = await addRun(db, run, now, { endedAt: now, outcomes: [] });
  await noteRun(db, id, { verdict: 'clean', piecesGood: 8, piecesSpoiled: 0, note: '' }, 'Ines', now);
  return id;
}

/** The forces that the book learns of a lot and a colour, as a plain sheet would have wanted them. */
async function learnt(lot: string, colour: string): Promise<readonly number[]> {
  const { sheets } = await readBookEvidence(db);
  const place = sheets.find((sheet) => sheet.lot === lot && sheet.colour === colour);
  return place?.trials.map(({ forceGf }) => forceGf) ?? [];
}

describe('a run of a loaded lot and colour', () => {
  it('cut at 99 on a lot that wants 10 % more teaches 90, and under that lot', async () => {
    expect(correctValues(revision.values, machine.forceScale, 1.1).force).toBe(99);
    await tellRun('L10', '', 99);
    for (const force of await learnt('L10', '')) expect(force).toBeCloseTo(90, 6);
    expect(await learnt('', '')).toEqual([]);
  });

  it('of a dark colour teaches that colour, not the pale one', async () => {
    await tellRun('', 'navy', 108);
    for (const force of await learnt('', 'navy')) expect(force).toBeCloseTo(90, 6);
    expect((await learnt('', 'navy')).length).toBeGreaterThan(0);
    expect(await learnt('', '')).toEqual([]);
  });

  it('from before what was cut was kept is taken for cut as its setting says, with what the lot adds', async () => {
    const before = (await learnt('L10', '')).length;
    await tellRun('L10', '', null);
    const now = await learnt('L10', '');
    expect(now.length).toBe(2 * before);
    for (const force of now) expect(force).toBeCloseTo(90, 6);
  });

  it('that was cut at another force than its setting says teaches that force', async () => {
    await tellRun('other', '', 120);
    for (const force of await learnt('other', '')) expect(force).toBeCloseTo(120, 6);
  });

  it('graded at the sheet teaches under its colour too', async () => {
    const id = await tellRun('', 'navy', 108);
    await addRunGrade(db, id, { operation: 'kiss', grade: 3, passesDone: 1, spot: null }, 'Ines', now);
    // The program of this sample was sent at 90: 90 on a colour that wants 20 % more is 75 on the pale one.
    expect(await learnt('', 'navy')).toContainEqual(expect.closeTo(75, 6));
  });
});
