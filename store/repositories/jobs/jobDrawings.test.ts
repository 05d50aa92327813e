import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Store } from '#store/connection/connectStore.ts';
import {
  addDrawings,
  addJob,
  changeJob,
  findJob,
  findJobHead,
  listJobs,
  removeDrawing,
} from '#store/repositories/jobs/jobs.ts';
import { smallJob } from '#store/tests/smallJob.ts';
import { later, now, openTestStore } from '#store/tests/testStore.ts';

let db: Store;
let conditionId: number;
let machineId: number;
beforeAll(async () => {
  ({ db, conditionId, machineId } = await openTestStore());
});
afterAll(() => db.destroy());

const drawing = (name: string, source = '<svg/>') => ({
  name,
  format: 'svg' as const,
  source,
  roles: { '|#000000': 'kiss' as const },
  lineRoles: {},
  areRolesGuessed: true,
  edits: [],
});
const fresh = () => addJob(db, smallJob(conditionId, machineId), now);

describe('the drawings of a job', () => {
  it('come back as they were kept, with texts of many megabytes, and without them in the head', async () => {
    const large = `<svg>${'ä'.repeat(2_000_000)}</svg>`;
    const job = {
      ...smallJob(conditionId, machineId),
      moreDrawings: [{ ...drawing('Tern', large), number: 1 }],
    };
    const id = await addJob(db, job, now);
    expect((await findJob(db, id)).moreDrawings).toEqual(job.moreDrawings);
    const { moreDrawings } = await findJobHead(db, id);
    expect(moreDrawings).toEqual([{ ...drawing('Tern'), number: 1, source: undefined }]);
  });

  it('are added with numbers that were never given before, and taken out', async () => {
    const id = await fresh();
    expect(await addDrawings(db, id, [drawing('Tern'), drawing('Skua')], 1, now)).toEqual([1, 2]);
    const { layout } = await findJob(db, id);
    await removeDrawing(db, id, 2, layout, 2, now);
    expect(await addDrawings(db, id, [drawing('Ruff')], 3, now)).toEqual([3]);
    await removeDrawing(db, id, 0, layout, 4, now);
    const job = await findJob(db, id);
    expect([job.drawingName, job.source, job.moreDrawings?.map(({ name }) => name)]).toEqual([
      'Tern',
      '<svg/>',
      ['Ruff'],
    ]);
    await removeDrawing(db, id, 0, layout, 5, now);
    await expect(removeDrawing(db, id, 0, layout, 6, now)).rejects.toMatchObject({ code: 'badInput' });
    await expect(removeDrawing(db, id, 9, layout, 6, now)).rejects.toMatchObject({ code: 'notFound' });
    expect((await findJob(db, id)).version).toBe(6);
  });

  it('change with the job or not at all', async () => {
    const id = await fresh();
    await addDrawings(db, id, [drawing('Tern')], 1, now);
    const roles = { '|#000000': 'through' as const };
    await changeJob(db, id, { name: 'Terns', moreDrawings: [{ number: 1, roles }] }, 2, later(1));
    expect((await findJob(db, id)).moreDrawings?.[0]).toMatchObject({ roles, areRolesGuessed: false });
    const wrong = { name: 'lost', moreDrawings: [{ number: 7, roles }] };
    await expect(changeJob(db, id, wrong, 3, later(1))).rejects.toMatchObject({ code: 'notFound' });
    expect((await findJob(db, id)).name).toBe('Terns');
    await expect(changeJob(db, id, { name: 'late' }, 2, later(1))).rejects.toMatchObject({
      code: 'conflict',
    });
    await expect(addDrawings(db, id, [drawing('late')], 2, later(1))).rejects.toMatchObject({
      code: 'conflict',
    });
  });

  it('are put away with their job, and come back with it', async () => {
    const id = await fresh();
    const names = async (isAwayToo: boolean) => (await listJobs(db, isAwayToo)).some((job) => job.id === id);
    await changeJob(db, id, { isPutAway: true }, 1, later(1));
    expect([await names(false), await names(true)]).toEqual([false, true]);
    await changeJob(db, id, { isPutAway: false }, 2, later(1));
    expect(await names(false)).toBe(true);
  });
});
