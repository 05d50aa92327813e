import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { askPath } from '#e2e/support/askEndpoint.ts';
import { drivenContext } from '#e2e/support/drivenRun.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { changeStation } from '#store/repositories/bench/stations.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { listJobs } from '#store/repositories/jobs/jobs.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { machine, now, openTestStore, revision } from '#store/tests/testStore.ts';
import type { JudgedReply, JudgedRunReply } from '#web/schemas/judgedPieces.ts';

/** Perforated pieces and creases cut from the page they are judged on, and what hands at the stand-in find of them. */
let db: Store;
let filmId: number;
let cutter: CutterService;
vi.mock('#server/serverContext.ts', () => ({ serverContext: () => drivenContext(db, cutter) }));

beforeAll(async () => {
  ({ db, conditionId: filmId } = await openTestStore());
});
afterAll(() => db.destroy());
afterEach(() => cutter.close());

const CARD = {
  name: 'Sedge card',
  maker: 'unknown',
  family: 'cardstock',
  finish: 'matt',
  colourName: 'pale',
  colourHex: '#e4e2dc',
  darkness: 0,
  stack: [{ role: 'body', caliperUm: 300, isMeasured: true }],
};

/** Cuts what is proposed, judges what is found, until it is right; the pieces it took. */
async function findRight(machineId: number, quantity: 'tabs' | 'crease'): Promise<number> {
  const path = `/api/stations/${machineId}/judged/${quantity}`;
  for (let pieces = 1; pieces <= 5; pieces++) {
    const { proposal } = (await askPath('GET', path, {})).reply as JudgedReply;
    const body = { ...proposal, requestKey: `${quantity}-piece-${pieces}` };
    const sent = await askPath('POST', `${path}/runs`, { body });
    expect(sent.status).toBe(201);
    // Asked again with one key, it is one run.
    expect((await askPath('POST', `${path}/runs`, { body })).reply).toEqual(sent.reply);
    const { id } = sent.reply as { id: number };
    await expect.poll(async () => (await findRun(db, id)).state, { timeout: 60_000 }).toBe('looking');
    const { run, seen } = (await askPath('GET', `${path}/runs`, {})).reply as JudgedRunReply;
    expect(run).toMatchObject({ id, judged: quantity, dialInId: null });
    expect(seen).not.toBeNull();
    await askPath('POST', path, { body: { given: proposal, seen } });
    if (seen === 2) return pieces;
  }
  throw new Error('not right after five pieces');
}

describe('on a roll-fed machine', () => {
  it('tabs of a film nobody knows are found by pushing pieces out, and no job stands in the list', async () => {
    cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 4, pace: 200 });
    const link = { kind: 'standIn', model: 'roll' } as const;
    const id = await addMachine(db, { ...machine, name: 'Tabs', link }, now);
    await changeStation(db, id, { conditionId: filmId }, 'Ines', now);
    const refused = await askPath('POST', `/api/stations/${id}/judged/tabs/runs`, {
      body: { tabLengthMm: 1, cutLengthMm: 12, requestKey: 'before-through' },
    });
    expect(refused.status).toBe(400);
    expect(JSON.stringify(refused.reply)).toContain('find the through cut first');
    const key = { conditionId: filmId, machineId: id, bladeKind: 'no blade' };
    await keepRevision(db, { ...key, operation: 'kiss' }, revision, 0, now);
    const through = { ...revision, values: { ...revision.values, force: 330, exposureMm: 0.6 } };
    await keepRevision(db, { ...key, operation: 'through' }, through, 0, now);
    expect(await findRight(id, 'tabs')).toBeLessThanOrEqual(4);
    expect(await listJobs(db)).toEqual([]);
  });
});

describe('on a desk machine with a crease tool in its second seat', () => {
  it('the force of a crease is found by folding', async () => {
    cutter = await serveCutter({ model: 'desk', dataPort: 0, panelPort: 0, seed: 5, pace: 200 });
    const levels = { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 4, gfPerUnit: 11 } as const;
    const desk = {
      ...machine,
      name: 'Folds',
      kind: 'matFed' as const,
      forceScale: levels,
      speedScale: { unit: 'cm/s' as const, min: 1, max: 60, step: 1, mmPerSPerUnit: 10 },
      operations: ['kiss', 'through', 'crease'] as const,
      toolSeats: [
        { name: 'front', holds: 'blade' as const, tool: '' },
        { name: 'back', holds: 'crease' as const, tool: 'crease tool' },
      ],
      link: { kind: 'standIn', model: 'desk' } as const,
    };
    const id = await addMachine(db, desk, now);
    const added = (await askPath('POST', '/api/materials', { body: CARD })).reply as { conditionId: number };
    await changeStation(db, id, { conditionId: added.conditionId }, 'Ines', now);
    expect(await findRight(id, 'crease')).toBeLessThanOrEqual(4);
  });
});
