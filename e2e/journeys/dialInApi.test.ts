import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ADDRESS, api, setUp } from '#e2e/support/app.ts';
import { rollCutter } from '#e2e/support/rollCutter.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { carryFile, strokesOf } from '#e2e/support/carryFile.ts';
import { standInHands } from '#server/links/standInHands.ts';
import type { DialInReply, KeptReply } from '#web/schemas/dialIn.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import type { KnowledgeReply } from '#web/schemas/knowledge.ts';
import type { JudgedReply } from '#web/schemas/judgedPieces.ts';

/** Everything the screen does, by script: hidden sheets are found on a stand-in cutter over its own socket. */
let cutter: CutterService;
let machineId = 0;
beforeAll(async () => {
  cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 41, pace: 4000 });
  machineId = (await setUp<{ id: number }>('/api/machines', 'POST', rollCutter('Shag 500'))).id;
});
afterAll(() => cutter.close());

const FAMILIES = ['printableVinyl', 'plainVinyl', 'stickerPaper', 'transferFilm'] as const;

interface Layer {
  readonly role: string;
  readonly caliperUm: number;
}

/** Cuts what the application drew, on a fresh piece of the hidden sheet, and reads the deepest common grade per cell. */
async function cutOn(sheet: object, machineFile: string, exposureMm: number): Promise<readonly number[]> {
  const order = { order: 'load', sheet, exposureMm, bladeMetres: 0, isFreshSheet: true };
  await standInHands(cutter.panelPort).order(order);
  const sights = await carryFile(cutter, machineFile);
  return strokesOf(sights).map(({ spans }) => Math.min(...spans.map(({ grade }) => grade)));
}

async function dialIn(index: number): Promise<{
  readonly cuts: number;
  readonly kept: number;
  readonly layers: readonly Layer[];
  readonly family: string;
}> {
  const family = FAMILIES[index % FAMILIES.length]!;
  const layers = [
    { role: 'face', caliperUm: 70 + 4 * index, isMeasured: true },
    { role: 'adhesive', caliperUm: 22, isMeasured: true },
    { role: 'liner', caliperUm: 100 + 5 * index, isMeasured: true },
  ];
  const material = {
    name: `Hidden ${index}`,
    maker: 'unknown',
    family,
    finish: '',
    colourName: 'pale',
    colourHex: '#f4f2ec',
    darkness: 0,
    stack: layers,
  };
  const { conditionId } = await setUp<{ conditionId: number }>('/api/materials', 'POST', material);
  await api(`/api/stations/${machineId}`, 'PATCH', { conditionId });
  const hidden = { key: `hidden sheet ${index}`, family, darkness: 0, layers };
  let { reply } = await api<DialInReply>('/api/dial-ins', 'POST', { machineId, operation: 'kiss' });
  const path = `/api/dial-ins/${reply.dialIn.id}`;
  let cuts = 0;
  while (cuts < 12 && ['cut', 'repeat', 'confirm'].includes(reply.bench.answer!.advice.kind)) {
    const file = await (await fetch(`${ADDRESS}${path}/piece?format=hpgl`)).text();
    const strokes = await cutOn(hidden, file, reply.dialIn.exposureMm);
    const grades = [{ force: reply.bench.answer!.advisedForce, grade: strokes[0]! }];
    reply = (await api<DialInReply>(`${path}/grades`, 'POST', { grades })).reply;
    cuts += 1;
  }
  const kept = reply.bench.answer!.bestForce;
  await api<KeptReply>(`${path}/keep`, 'POST', { basedOn: 0, reason: 'found on the stand-in' });
  return { cuts, kept, layers, family };
}

/** More of them, and against rivals: the referee. */
const SHEETS = 6;

describe('hidden sheets on the stand-in cutter', () => {
  it('are dialled in through the HTTP interface: at most five cuts each on average, and the kept force cuts right', async () => {
    let total = 0;
    let right = 0;
    for (let index = 0; index < SHEETS; index++) {
      const { cuts, kept, layers, family } = await dialIn(index);
      total += cuts;
      const file = `IN;PA;SP1;\nVS200;FS${kept};\nPU400,400;PD800,400,800,800,400,800,400,400;\nPU0,0;SP0;\n`;
      const [grade] = await cutOn({ key: `hidden sheet ${index}`, family, darkness: 0, layers }, file, 0.4);
      if (grade === 3 || grade === 4) right += 1;
    }
    expect(total / SHEETS).toBeLessThanOrEqual(5);
    expect(right).toBeGreaterThanOrEqual(SHEETS - 1);
  }, 180_000);

  it('have taught the book: the machine is known better than its prior, in words', async () => {
    await api('/api/knowledge/refits', 'POST');
    const { reply } = await api<KnowledgeReply>('/api/knowledge');
    const machine = reply.effects.find(({ name }) => name === `machine:${machineId}`)!;
    expect(machine.words).toMatch(/^Shag 500 wants .* from \d+ trials\.$/);
    expect(machine.learnt).toBeGreaterThan(0.05);
    expect(reply.refit.problem).toBe('');
  });

  it('keep their evidence: window, chances of every grade, and what moved the answer', async () => {
    const [, second] = (await api<{ id: number }[]>(`/api/dial-ins?machineId=${machineId}`)).reply;
    expect(second).toBeUndefined();
    const opened = (await api<DialInReply>('/api/dial-ins', 'POST', { machineId, operation: 'kiss' })).reply;
    const path = `/api/dial-ins/${opened.dialIn.id}`;
    const window = (await api<{ chances: { grades: { chance: number }[] }[] }>(`${path}/window`)).reply;
    for (const { grades } of window.chances) {
      expect(grades.reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(1, 6);
    }
    const reasons = (
      await api<{ cuts: { percent: number }[]; effects: { words: string }[] }>(`${path}/reasons`)
    ).reply;
    expect(reasons.cuts.length).toBeGreaterThan(1);
    expect(reasons.effects.map(({ words }) => words)).toContain('Shag 500');
    await api(`${path}/close`, 'POST');
  });
});

describe('the interface refuses', () => {
  it('what cannot be, and says why: a card of one, a grade off the sheet, a change of what is over', async () => {
    const opened = (await api<DialInReply>('/api/dial-ins', 'POST', { machineId, operation: 'kiss' })).reply;
    const path = `/api/dial-ins/${opened.dialIn.id}`;
    const { version } = opened.dialIn;
    expect((await api(`${path}/cards`, 'POST', { version, forces: [80] })).status).toBe(400);
    expect((await api(`${path}/grades`, 'POST', { grades: [{ grade: 3 }] })).status).toBe(400);
    expect((await api(`${path}/grades`, 'POST', { load: 9, grades: [{ cell: 0, grade: 3 }] })).status).toBe(
      400,
    );
    expect((await api(`${path}/grades`, 'POST', { grades: [{ force: 9000, grade: 3 }] })).status).toBe(422);
    expect((await api(path, 'PATCH', { version: version + 5, passes: 2 })).status).toBe(409);
    await api(`${path}/close`, 'POST');
    expect((await api(`${path}/grades`, 'POST', { grades: [{ force: 80, grade: 3 }] })).status).toBe(409);
    expect((await api('/api/dial-ins/99999')).status).toBe(404);
    expect((await api('/api/dial-ins', 'POST', { machineId, operation: 'score' })).status).toBe(400);
  });

  it('a belief that cannot be, and takes one back', async () => {
    const path = '/api/knowledge/priors/wear';
    expect((await api(path, 'PUT', { mean: 0.2, sd: -1, reason: 'because' })).status).toBe(400);
    expect(
      (await api(path, 'PUT', { mean: 0.3, sd: 0.1, reason: 'our card is hard on blades' })).status,
    ).toBe(200);
    const own = (await api<KnowledgeReply>('/api/knowledge')).reply.priors.find(
      ({ name }) => name === 'wear',
    )!;
    expect(own).toMatchObject({ mean: 0.3, commonMean: 0.2, reason: 'our card is hard on blades' });
    const { reply } = await api<KnowledgeReply>(path, 'DELETE');
    expect(reply.priors.find(({ name }) => name === 'wear')).toMatchObject({ mean: 0.2, author: '' });
  });
});

describe('tabs by how a piece held', () => {
  it('are proposed, judged, taken back and kept with the kiss force along the tabs', async () => {
    const path = `/api/stations/${machineId}/judged/tabs`;
    const start = (await api<JudgedReply>(path)).reply;
    expect(start.pieces).toEqual([]);
    const fell = (await api<JudgedReply>(path, 'POST', { given: start.proposal, seen: 0 })).reply;
    const lengthOf = ({ proposal }: JudgedReply) => ('tabLengthMm' in proposal ? proposal.tabLengthMm : 0);
    expect(lengthOf(fell)).toBeGreaterThan(lengthOf(start));
    await api(`/api/judged-pieces/${fell.pieces[0]!.id}`, 'DELETE');
    expect(lengthOf((await api<JudgedReply>(path)).reply)).toBe(lengthOf(start));
    const refused = await api<{ error: { message: string } }>(`${path}/keep`, 'POST', {
      given: start.proposal,
      basedOn: 0,
    });
    expect(refused.reply.error.message).toMatch(/find the through cut first/);
    expect((await api(`${path}/piece?widthMm=40`)).status).toBe(400);
    const { answer, revision } = (await api<BenchAnswer>(`/api/stations/${machineId}/answers/kiss`)).reply;
    const values = { ...answer!.values, force: 320 };
    const through = { operation: 'through', values, sources: { force: 'person' }, basedOn: 0 };
    expect((await api(`/api/stations/${machineId}/settings`, 'POST', through)).status).toBe(201);
    const piece = await fetch(`${ADDRESS}${path}/piece?widthMm=44&heightMm=30&tabLengthMm=1`);
    const forces = [...(await piece.text()).matchAll(/FS(\d+)/g)].map(([, force]) => Number(force));
    // Tabs at the kiss force, cuts (and the figure below) at the through force.
    expect(new Set(forces)).toEqual(new Set([revision!.values.force, 320]));
  });
});
