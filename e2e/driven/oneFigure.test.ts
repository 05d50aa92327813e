import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { readJobSettings } from '#store/repositories/jobs/jobSettings.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { changeStation, findStation } from '#store/repositories/bench/stations.ts';
import { changeMaterial, findMaterialByCondition } from '#store/repositories/book/materials.ts';
import { findSetting } from '#store/repositories/book/settings.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { now, openTestStore, revision } from '#store/tests/testStore.ts';
import { askPath } from '#e2e/support/askEndpoint.ts';
import { readBenchAnswers } from '#web/pageData/readBenchAnswers.ts';
import { readSettingPage } from '#web/pageData/readSettingPage.ts';
import type { ConsultReply } from '#web/schemas/faults.ts';

/** One question, one figure: what to set for the sheet that lies there, wherever it is told. */
let db: Store;
let machineId: number;
let conditionId: number;
const LOT = {
  code: 'L10',
  forcePercent: 10,
  receivedOn: '2027-01-04',
  storage: '',
  note: '',
  humidityPercent: null,
  isArchived: false,
};
const SEEN = { operation: 'kiss', symptoms: ['cornersHang'], answers: {}, tried: [] };
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);

beforeAll(async () => {
  ({ db, machineId, conditionId } = await openTestStore());
  const { material } = await findMaterialByCondition(db, conditionId);
  const { id, version, isArchived: _, ...same } = material;
  await changeMaterial(
    db,
    id,
    { ...same, details: { ...material.details, lots: [LOT] } },
    version,
    'Ines',
    now,
  );
  await changeStation(db, machineId, { conditionId, lot: 'L10' }, 'Ines', now);
  await keepRevision(db, await keyOf('kiss'), revision, 0, now);
  const perforated = {
    ...revision,
    values: {
      ...revision.values,
      force: 200,
      tabForce: revision.values.force,
      cutLengthMm: 12,
      tabLengthMm: 1,
      cornerClearanceMm: 3,
    },
  };
  await keepRevision(db, await keyOf('perforated'), perforated, 0, now);
});
afterAll(() => db.destroy());

async function keyOf(operation: 'kiss' | 'perforated') {
  const { blade } = await findStation(db, machineId);
  return { conditionId, machineId, bladeKind: blade?.kind ?? 'no blade', operation };
}

/** The force as Bench, Faults, a job and the setting's own page tell it. */
async function told() {
  const station = await findStation(db, machineId);
  const bench = await readBenchAnswers(db, station);
  const { values } = await readJobSettings(db, { machineId, conditionId });
  const asked = await askPath('POST', `/api/stations/${machineId}/faults/consult`, { body: SEEN });
  const more = (asked.reply as ConsultReply).actions.find(({ action }) => action === 'moreForce');
  const page = await readSettingPage(db, await keyOf('kiss'));
  return {
    bench: bench?.kiss.answer?.values.force,
    job: values.kiss?.force,
    faults: more?.change?.from,
    page: page.onSheet?.force,
    to: more?.change?.to,
    perforated: bench?.others.find(({ operation }) => operation === 'perforated')?.revision.values,
    perforatedInJob: values.perforated,
  };
}

describe('a sheet of a lot that wants 10 % more than its material', () => {
  it('is told one force by the Bench, by Faults, by a job and by the page of the setting', async () => {
    const { bench, job, faults, page } = await told();
    expect(bench).toBe(99);
    expect([job, faults, page]).toEqual([bench, bench, bench]);
  });

  it('so is a perforation, and its tabs are cut at the kiss force of this lot', async () => {
    const { bench, perforated, perforatedInJob } = await told();
    expect(perforated).toMatchObject({ force: 220, tabForce: bench });
    expect(perforatedInJob).toMatchObject({ force: 220, tabForce: bench });
  });

  it('a number changed against a fault is what the Bench shows next, and the material keeps it without the lot', async () => {
    const { to } = await told();
    const body = { ...SEEN, action: 'moreForce' };
    expect((await askPath('POST', `/api/stations/${machineId}/faults`, { body })).status).toBe(201);
    expect((await told()).bench).toBe(to);
    const kept = await findSetting(db, await keyOf('kiss'));
    expect(kept!.revision.values.force).toBeCloseTo(to! / 1.1, 0);
  });
});
