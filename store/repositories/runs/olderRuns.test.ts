import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { smallJob } from '#store/tests/smallJob.ts';
import { sampleProgram } from '#core/tests/sampleProgram.ts';
import { connectStore, type Store } from '#store/connection/connectStore.ts';
import { migrationSource } from '#store/migrations/listMigrations.ts';
import { readBookEvidence } from '#store/repositories/dialIn/evidence.ts';
import { addJob } from '#store/repositories/jobs/jobs.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { findDrivenRun, listRunEvents } from '#store/repositories/runs/runEvents.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { furnish, now, revision } from '#store/tests/testStore.ts';
import { mine } from '#store/tests/mine.ts';

/** A store as it was before runs were a state machine: everything in it is there afterwards, and can be driven. */
const BEFORE = 27;
let db: Store;
let runId: number;
let machineId: number;

beforeAll(async () => {
  db = connectStore(mine('FEATHER_TEST_STORE_URL'));
  await db.migrate.rollback({ migrationSource }, true);
  for (let step = 0; step < BEFORE; step++) await db.migrate.up({ migrationSource });
  const furnished = await furnish(db);
  ({ machineId } = furnished);
  const { conditionId } = furnished;
  // As machines were kept before they had a language.
  const { facts } = (await db('machines').where({ id: machineId }).first('facts')) as {
    facts: string | object;
  };
  const { language: _, ...older } = (typeof facts === 'string' ? JSON.parse(facts) : facts) as Record<
    string,
    unknown
  >;
  await db('machines')
    .where({ id: machineId })
    .update({ facts: JSON.stringify({ ...older, hpglUnitsPerMm: 100 }) });
  const key = { conditionId, machineId, bladeKind: '45° fine', operation: 'kiss' } as const;
  await keepRevision(db, key, revision, 0, now);
  const job = smallJob(conditionId, machineId);
  const { file: _file, parts, ...program } = sampleProgram(2);
  const sentAt = parts.map((part) => ({
    ...part,
    passes: part.passes.map((pass) => ({ ...pass, values: { ...pass.values, force: 99 } })),
  }));
  const points = [
    { x: 0, y: 0 },
    { x: 9, y: 0 },
  ];
  const stroke = { operation: 'kiss', isTab: false, contourId: 0, repeat: 0, points };
  const placing = { leftMm: 12, bottomMm: 5, correction: [1, 0, 0, 1, 0, 0] };
  [runId] = (await db('runs').insert({
    job_id: await addJob(db, job, now),
    machine_id: machineId,
    condition_id: conditionId,
    state: 'held',
    message: 'The cutter stopped: jam.',
    sheet_width_mm: 210,
    sheet_height_mm: 297,
    strokes: JSON.stringify([stroke, stroke]),
    seconds: 4,
    verdict: 'clean',
    pieces_good: 0,
    pieces_spoiled: 0,
    note: '',
    author: 'Ines',
    started_at: now,
    noted_at: now,
    blade_metres: 10,
    sent_key: 'run-1/0/0/older',
    boot_id: 'boot',
    program: JSON.stringify({
      ...program,
      parts: sentAt,
      hpgl: { unitsPerMm: 100, carriesNumbers: false, placing },
    }),
  })) as [number];
  await db('run_strokes').insert({ run_id: runId, stroke_index: 0, spans: '[{"from":0,"to":1,"grade":3}]' });
  const { id: settingId } = (await db('settings').first('id')) as { id: number };
  await db('run_settings').insert({ run_id: runId, setting_id: settingId, revision: 1 });
  await db.migrate.latest({ migrationSource });
});
afterAll(() => db.destroy());

describe('a store from before runs were a state machine', () => {
  it('keeps its runs as they stood, ready to go on', async () => {
    const { course, version, program } = await findDrivenRun(db, runId);
    expect(version).toBe(0);
    expect(course).toMatchObject({
      state: 'held',
      message: 'The cutter stopped: jam.',
      parts: [{ from: 0, to: 2, before: null }],
      sending: { key: 'run-1/0/0/older', bootId: 'boot', outTo: null },
      reached: [[0, 1]],
    });
    expect(program.file).toEqual({
      language: { id: 'hpgl', options: { unitsPerMm: 100 } },
      carries: { force: false, speed: false },
      mmPerSPerUnit: 1,
      placing: { leftMm: 12, bottomMm: 5, correction: [1, 0, 0, 1, 0, 0] },
    });
    expect((await findRun(db, runId)).outcomes).toHaveLength(1);
    expect(await listRunEvents(db, runId)).toEqual([]);
  });

  it('knows which language its machines speak, and tells older scripts their figure', async () => {
    expect((await listMachines(db)).find(({ id }) => id === machineId)).toMatchObject({
      language: { id: 'hpgl', options: { unitsPerMm: 100 } },
      hpglUnitsPerMm: 100,
    });
  });

  it('learns from what was sent rather than from what the setting says', async () => {
    const { sheets } = await readBookEvidence(db);
    const forces = sheets.flatMap(({ trials }) => trials.map(({ forceGf }) => forceGf));
    expect(forces.length).toBeGreaterThan(0);
    for (const force of forces) expect(force).toBeCloseTo(99, 6);
  });
});
