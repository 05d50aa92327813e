import { afterAll, afterEach, beforeAll, beforeEach, expect, it, vi } from 'vitest';
import { gradesOfCells } from '#core/run/gradesOfCells.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { askPath } from '#e2e/support/askEndpoint.ts';
import { drivenContext } from '#e2e/support/drivenRun.ts';
import { continueRun } from '#server/runs/runOrders.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { changeStation } from '#store/repositories/bench/stations.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { listJobs } from '#store/repositories/jobs/jobs.ts';
import { listLog } from '#store/repositories/log/log.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { machine, now, openTestStore } from '#store/tests/testStore.ts';
import type { DialInReply, TestRunReply } from '#web/schemas/dialIn.ts';

/** Test pieces cut from the page of test cuts, by the machinery that cuts jobs, on machines that tell and that do not. */
let db: Store;
let conditionId: number;
let cutter: CutterService;
vi.mock('#server/serverContext.ts', () => ({ serverContext: () => drivenContext(db, cutter) }));

beforeAll(async () => {
  ({ db, conditionId } = await openTestStore());
});
afterAll(() => db.destroy());
beforeEach(async () => {
  cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 4, pace: 60 });
});
afterEach(() => cutter.close());

async function openAt(name: string, numbersOwner: 'file' | 'panel', panelCuts = 1): Promise<DialInReply> {
  const link = { kind: 'standIn', model: 'roll' } as const;
  const machineId = await addMachine(db, { ...machine, name, numbersOwner, panelCuts, link }, now);
  await changeStation(db, machineId, { conditionId }, 'Ines', now);
  return (await askPath('POST', '/api/dial-ins', { body: { machineId, operation: 'kiss' } }))
    .reply as DialInReply;
}
const cut = (id: number, body: object) => askPath('POST', `/api/dial-ins/${id}/runs`, { body });
const lookAt = async (id: number) =>
  (await askPath('GET', `/api/dial-ins/${id}/runs`, {})).reply as TestRunReply;
async function until(id: number, state: string) {
  await expect.poll(async () => (await findRun(db, id)).state, { timeout: 60_000 }).toBe(state);
  return findRun(db, id);
}

it('cuts one piece in the free corner, shows what was seen of it, and takes it out before the next', async () => {
  const { dialIn } = await openAt('Carries', 'file');
  expect((await lookAt(dialIn.id)).run).toBeNull();
  const given = { force: 90, requestKey: 'first-piece' };
  const first = await cut(dialIn.id, given);
  expect(first.status).toBe(201);
  // The same request again is the same run, whatever its state.
  expect((await cut(dialIn.id, given)).reply).toEqual(first.reply);
  const { id } = first.reply as { id: number };
  const run = await until(id, 'looking');
  expect(run.dialInId).toBe(dialIn.id);
  expect([...gradesOfCells(run.strokes, run.outcomes).keys()]).toEqual([0]);
  expect((await lookAt(dialIn.id)).run?.id).toBe(id);

  const second = (await cut(dialIn.id, { force: 110, requestKey: 'second-piece' })).reply as { id: number };
  await until(second.id, 'looking');
  expect((await findRun(db, id)).state).toBe('done');
  const { reply } = await askPath('GET', `/api/dial-ins/${dialIn.id}`, {});
  // Each has its own place.
  expect((reply as DialInReply).dialIn.scrap.taken).toHaveLength(2);
  expect(await listJobs(db)).toEqual([]);
  const told = (await listLog(db, 20)).filter(({ kind }) => kind === 'run');
  expect(told.map(({ detail }) => /for a search/.test(detail))).toEqual([true, true]);
});

it('stops before each force of a card that a hand dials, and cuts each cell once', async () => {
  const { dialIn } = await openAt('Panel', 'panel');
  const forces = [70, 90, 110];
  await askPath('POST', `/api/dial-ins/${dialIn.id}/cards`, { body: { version: dialIn.version, forces } });
  expect((await cut(dialIn.id, { requestKey: 'one-piece-now', force: 80 })).status).toBe(409);
  const { id } = (await cut(dialIn.id, { requestKey: 'the-whole-card' })).reply as { id: number };
  // The first force is dialled before anything is sent: the page says so beside the button.
  for (const force of forces.slice(1)) {
    const run = await until(id, 'waiting');
    expect(run.message).toContain(`Dial force ${force}`);
    await continueRun(id, 'again', drivenContext(db, cutter));
    await expect.poll(async () => (await findRun(db, id)).message).not.toContain(`Dial force ${force}`);
  }
  const run = await until(id, 'looking');
  expect(run.outcomes).toHaveLength(run.strokes.length);
  const grades = gradesOfCells(run.strokes, run.outcomes);
  expect([...grades.keys()].sort()).toEqual([0, 1, 2]);
  // More force never cuts less deep on one sheet.
  expect([grades.get(0)!, grades.get(1)!, grades.get(2)!]).toEqual(
    [...grades.values()].sort((a, b) => a - b),
  );
});

it('runs a card through without a stop where the panel holds a numbered cut for each force, and writes it as one file', async () => {
  const opened = await openAt('Numbered', 'panel', 4);
  const { dialIn } = opened;
  const forces = [70, 90, 110];
  await askPath('POST', `/api/dial-ins/${dialIn.id}/cards`, { body: { version: dialIn.version, forces } });
  const { id } = (await cut(dialIn.id, { requestKey: 'numbered-card' })).reply as { id: number };
  const run = await until(id, 'looking');
  const grades = gradesOfCells(run.strokes, run.outcomes);
  const seen = [grades.get(0)!, grades.get(1)!, grades.get(2)!];
  expect(seen).toEqual([...seen].sort((a, b) => a - b));
  expect(seen[2]).toBeGreaterThan(seen[0]!);
  const fileOf = (of: DialInReply) =>
    askPath('GET', `/api/dial-ins/${of.dialIn.id}/piece`, { query: '?card=waiting&format=machine' });
  const file = await fileOf(opened);
  expect([...String(file.reply).matchAll(/SP([1-9])/g)].map(([, number]) => number)).toEqual(['1', '2', '3']);
  const fewer = await openAt('Fewer', 'panel', 2);
  await askPath('POST', `/api/dial-ins/${fewer.dialIn.id}/cards`, {
    body: { version: fewer.dialIn.version, forces },
  });
  const refused = await fileOf(fewer);
  expect(refused.status).toBe(400);
  expect(JSON.stringify(refused.reply)).toMatch(/holds 2 numbered cuts, and this card wants 3/);
});

it('is refused in words without a card, a force, or the sheet on the machine', async () => {
  const { dialIn } = await openAt('Refuses', 'file');
  const words = async (body: object) =>
    JSON.stringify((await cut(dialIn.id, { requestKey: 'refused-one', ...body })).reply);
  expect(await words({})).toMatch(/no card waits/);
  await changeStation(db, dialIn.machineId, { conditionId: null }, 'Ines', now);
  expect(await words({ force: 90 })).toMatch(/Load .* at Refuses first/);
});
