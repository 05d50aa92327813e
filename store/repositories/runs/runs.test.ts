import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '#store/connection/connectStore.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { sampleDesign } from '#core/tests/sampleJob.ts';
import { addJob, changeJob, findJob, listJobs } from '#store/repositories/jobs/jobs.ts';
import { findGoingRuns } from '#store/repositories/runs/goingRuns.ts';
import { listLog } from '#store/repositories/log/log.ts';
import { addRun, findRun, noteRun, startRun } from '#store/repositories/runs/runs.ts';
import { stepRun } from '#core/run/stepRun.ts';
import type { RunEvent } from '#core/run/runCourse.ts';
import { findDrivenRun, keepRunStep, listRunEvents } from '#store/repositories/runs/runEvents.ts';
import { sampleProgram } from '#core/tests/sampleProgram.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { findSetting } from '#store/repositories/book/settings.ts';
import { later, now, openTestStore, revision } from '#store/tests/testStore.ts';

let db: Store;
let conditionId: number;
let machineId: number;
const key = (operation: 'kiss' | 'through') => ({ conditionId, machineId, bladeKind: '45° fine', operation });

beforeAll(async () => {
  ({ db, conditionId, machineId } = await openTestStore());
});
afterAll(() => db.destroy());

/** Tells a run what happened, from what is kept of it or from what was read before. */
async function tell(
  runId: number,
  event: RunEvent,
  seen?: Awaited<ReturnType<typeof findDrivenRun>>,
  at = now,
  writeId: string = randomUUID(),
) {
  const { course, version } = seen ?? (await findDrivenRun(db, runId));
  const step = stepRun(course, event);
  return keepRunStep(db, { runId, version, before: course, event, step, author: 'Ines', writeId }, at);
}

describe('jobs and runs', () => {
  const job = () => ({
    name: 'Gulls',
    ...sampleDesign(
      '<svg viewBox="0 0 9 9"><path d="M0 0H9"/></svg>',
      { '|#000000': 'kiss' },
      { xMm: 5, yMm: 5 },
    ),
    areRolesGuessed: true,
    passes: PLAIN_CHOICES,
    conditionId,
    machineId,
  });

  it('count versions, so that the slower of two editors is told', async () => {
    const id = await addJob(db, job(), now);
    await changeJob(db, id, { roles: { '|#000000': 'through' } }, 1, later(1));
    expect(await findJob(db, id)).toMatchObject({
      version: 2,
      areRolesGuessed: false,
      roles: { '|#000000': 'through' },
    });
    await expect(changeJob(db, id, { name: 'Other' }, 1, later(2))).rejects.toMatchObject({
      code: 'conflict',
    });
    expect((await findJob(db, id)).name).toBe('Gulls');
    await expect(changeJob(db, 999, { name: 'x' }, 1, now)).rejects.toMatchObject({ code: 'notFound' });
    expect((await listJobs(db))[0]?.id).toBe(id);
  });

  it('record a run stroke by stroke, note it once it is over, and prove a setting after three clean ones', async () => {
    const jobId = await addJob(db, job(), now);
    await keepRevision(db, key('kiss'), revision, 0, now);
    const setting = (await findSetting(db, key('kiss')))!;
    for (let round = 0; round < 3; round++) {
      const stroke = {
        operation: 'kiss',
        isTab: false,
        contourId: 0,
        repeat: 0,
        points: [
          { x: 0, y: 0 },
          { x: 9, y: 0 },
        ],
      } as const;
      const runId = await addRun(
        db,
        {
          jobId,
          machineId,
          conditionId,
          sheetWidthMm: 210,
          sheetHeightMm: 297,
          strokes: [stroke],
          seconds: 4,
          author: 'Ines',
          settings: [{ settingId: setting.id, revision: 1 }],
          program: sampleProgram(1),
        },
        later(round),
      );
      const note = {
        verdict: 'clean',
        piecesGood: 8,
        piecesSpoiled: 0,
        note: round === 2 ? 'fine' : '',
      } as const;
      await expect(noteRun(db, runId, note, 'Ines', now)).rejects.toMatchObject({ code: 'conflict' });
      expect((await findGoingRuns(db))[0]?.id).toBe(runId);
      const reach = (grade: 3 | 8) =>
        tell(runId, { kind: 'reached', strokes: [{ index: 0, spans: [{ from: 0, to: 1, grade }] }] });
      const unread = await findDrivenRun(db, runId);
      await reach(3);
      // From what was read before the first: said twice, it is kept once.
      await tell(
        runId,
        { kind: 'reached', strokes: [{ index: 0, spans: [{ from: 0, to: 1, grade: 8 }] }] },
        unread,
      );
      for (const event of [{ kind: 'taken' }, { kind: 'unloaded' }] as const)
        await tell(runId, event, undefined, later(round));
      await noteRun(db, runId, note, 'Ines', later(round + 1));
      const run = await findRun(db, runId);
      expect(run).toMatchObject({ state: 'done', verdict: 'clean', strokes: [stroke], jobName: 'Gulls' });
      expect(run.outcomes).toEqual([{ index: 0, spans: [{ from: 0, to: 1, grade: 3 }] }]);
    }
    expect(await findSetting(db, key('kiss'))).toMatchObject({ state: 'proven', lastNote: 'fine' });
    await keepRevision(db, key('kiss'), revision, 1, later(9));
    expect(await findSetting(db, key('kiss'))).toMatchObject({ state: 'tried', verdicts: [] });
  });

  it('begin once for one request, and one at a time for a machine', async () => {
    const jobId = await addJob(db, job(), now);
    const shared = {
      jobId,
      machineId,
      conditionId,
      sheetWidthMm: 1,
      sheetHeightMm: 1,
      strokes: [],
      seconds: 1,
      author: 'Ines',
      settings: [],
      program: sampleProgram(0),
    };
    const both = await Promise.all(
      [1, 2].map(() => startRun(db, { ...shared, requestKey: 'press-of-a-button' }, now)),
    );
    expect(both[0]!.id).toBe(both[1]!.id);
    expect(both.filter(({ isNew }) => isNew)).toHaveLength(1);
    await expect(startRun(db, { ...shared, requestKey: 'another-press' }, now)).rejects.toMatchObject({
      code: 'conflict',
      details: { runId: both[0]!.id },
    });
    // Of eight who move it at once from what they all saw, one does.
    const { id } = both[0]!;
    const seen = await findDrivenRun(db, id);
    const moves = await Promise.all(
      [...Array(8).keys()].map((who) =>
        tell(id, { kind: 'failed', reason: 'gone' }, seen, now, `try-${who}`),
      ),
    );
    expect(moves.filter((version) => version !== null)).toEqual([1]);
    // Whoever never heard that his step was written tries it again, and is told that it is.
    expect(await tell(id, { kind: 'failed', reason: 'gone' }, seen, now, `try-${moves.indexOf(1)}`)).toBe(1);
    await tell(id, { kind: 'handsDone', open: 'again' });
    // A run that is over stays so.
    await tell(id, { kind: 'unloaded' });
    await tell(id, { kind: 'stopOrdered' });
    expect((await findRun(db, id)).state).toBe('done');
    expect((await listRunEvents(db, id)).map(({ kind, state, author }) => [kind, state, author])).toEqual([
      ['failed', 'held', 'Ines'],
      ['handsDone', 'looking', 'Ines'],
      ['unloaded', 'done', 'Ines'],
    ]);
    await expect(findRun(db, 999)).rejects.toMatchObject({ code: 'notFound' });
    await expect(findDrivenRun(db, 999)).rejects.toMatchObject({ code: 'notFound' });
  });

  it('stand in the log, the newest first', async () => {
    const entries = await listLog(db, 100);
    expect(new Set(entries.map((entry) => entry.kind))).toEqual(new Set(['run', 'setting', 'change']));
    const times = entries.map((entry) => entry.at);
    expect([...times].sort().reverse()).toEqual(times);
    expect(await listLog(db, 3)).toHaveLength(3);
  });
});
