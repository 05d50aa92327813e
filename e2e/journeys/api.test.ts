import { describe, expect, it } from 'vitest';
import type { Job } from '#core/job/job.ts';
import type { Station } from '#core/station/station.ts';
import type { BenchAnswer, BookPage } from '#web/schemas/setting.ts';
import type { PlanReply } from '#web/schemas/plan.ts';
import type { LogEntryReply } from '#web/schemas/run.ts';
import { api, setUp } from '#e2e/support/app.ts';
import { rollCutter } from '#e2e/support/rollCutter.ts';

/** The whole path once more, as a script would walk it, on a machine with levels. */
const machine = {
  ...rollCutter('Script desk'),
  kind: 'matFed',
  bedWidthMm: 305,
  bedLengthMm: 610,
  forceScale: { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 4, gfPerUnit: 12 },
  speedScale: { unit: 'cm/s', min: 1, max: 40, step: 1, mmPerSPerUnit: 10 },
  depthScale: { kind: 'dial', mmPerStep: 0.1, maxMm: 1 },
  numbersOwner: 'panel',
};
const material = {
  name: 'Script label',
  maker: 'Skerry Mills',
  family: 'stickerPaper',
  colourHex: '#ffffff',
  darkness: 0,
  stack: [
    { role: 'face', caliperUm: 85, isMeasured: true },
    { role: 'adhesive', caliperUm: 20, isMeasured: true },
    { role: 'liner', caliperUm: 62, isMeasured: false },
  ],
};

interface Refused {
  readonly error: { readonly code: string; readonly message: string };
}

let machineId = 0;
let conditionId = 0;
let jobId = 0;
const station = (rest = '') => `/api/stations/${machineId}${rest}`;
const answer = async (operation: string) => (await api<BenchAnswer>(station(`/answers/${operation}`))).reply;

describe('the HTTP interface, walked by a script', () => {
  it('adds a machine and a material once, and refuses them twice', async () => {
    const added = await api<{ id: number }>('/api/machines', 'POST', machine);
    expect(added.status).toBe(201);
    machineId = added.reply.id;
    expect((await api<Refused>('/api/machines', 'POST', machine)).reply.error.code).toBe('conflict');
    expect((await api('/api/materials', 'POST', material)).status).toBe(201);
    expect((await api<Refused>('/api/materials', 'POST', material)).status).toBe(409);
    const upsideDown = { ...material, name: 'wrong', stack: [...material.stack].reverse() };
    expect((await api<Refused>('/api/materials', 'POST', upsideDown)).reply.error.message).toMatch(
      /order from the top/,
    );
  });

  it('answers nothing for an empty station and something once a sheet is loaded', async () => {
    expect((await answer('kiss')).answer).toBeNull();
    const refused = await api<Refused>('/api/jobs', 'POST', { name: 'x', source: '<svg/>', machineId });
    expect(refused.reply.error.message).toMatch(/no sheet is loaded/);
    const { reply: materials } =
      await api<{ name: string; conditions: { id: number }[] }[]>('/api/materials');
    conditionId = materials.find(({ name }) => name === 'Script label')!.conditions[0]!.id;
    const { reply } = await api<Station>(station(), 'PATCH', { conditionId, lot: ' S-1 ' });
    expect(reply.loaded).toMatchObject({ lot: 'S-1', condition: { kind: 'bare' } });
    const first = await answer('kiss');
    expect(first.answer).toMatchObject({ state: 'predicted', advice: { kind: 'cut' } });
    expect(first.answer!.advisedForce).toBeGreaterThanOrEqual(1);
    expect(first.answer!.values.force % 1).toBe(0);
  });

  it('narrows the window with every graded cut, whichever operation it was for', async () => {
    const width = (bench: BenchAnswer) => {
      const { lowerEdge } = bench.answer!.window;
      return Math.log(lowerEdge.highGf / lowerEdge.lowGf);
    };
    const before = width(await answer('kiss'));
    const cuts = [
      ['kiss', 3, 1],
      ['kiss', 4, 2],
      ['kiss', 5, 3],
      ['through', 13, 7],
    ] as const;
    for (const [operation, force, grade] of cuts) {
      const body = { operation, force, passes: 1, speed: 20, exposureMm: 0.3, grade };
      const { status, reply } = await api<BenchAnswer>(station('/test-cuts'), 'POST', body);
      expect(status).toBe(201);
      expect(reply.cuts.at(-1)).toMatchObject({ force, grade, operation });
    }
    const after = await answer('kiss');
    expect(width(after)).toBeLessThan(before / 2);
    expect(after.cuts).toHaveLength(4);
    const chances = after.answer!.window.outlooks.map(({ under, right, over }) => under + right + over);
    for (const sum of chances) expect(sum).toBeCloseTo(1, 6);
  });

  it('keeps settings on the scale of the machine and lists them', async () => {
    for (const [operation, force] of [
      ['kiss', 5.4],
      ['through', 13],
    ] as const) {
      const { answer: now, revision } = await answer(operation);
      const { values, sources } = now!.suggestion;
      const body = {
        operation,
        values: { ...values, force },
        sources,
        reason: 'by script',
        basedOn: revision?.revision ?? 0,
      };
      const kept = await api<BenchAnswer>(station('/settings'), 'POST', body);
      expect(kept.reply.revision).toMatchObject({
        revision: 1,
        values: { force: Math.round(force) },
        author: 'bench',
      });
      const late = await api<Refused>(station('/settings'), 'POST', body);
      expect(late.reply.error).toMatchObject({ code: 'conflict', message: /bench kept revision 1/ });
      const tooDeep = { ...body, values: { ...values, force, exposureMm: 1.4 }, basedOn: 1 };
      expect((await api<Refused>(station('/settings'), 'POST', tooDeep)).reply.error.message).toMatch(
        /at most 1 mm/,
      );
    }
    const { reply } = await api<BookPage>('/api/settings');
    expect(reply.settings.filter((setting) => setting.machine === 'Script desk')).toHaveLength(2);
  });

  it('plans a job in parts where the panel owns the numbers, and writes none of them into the files', async () => {
    const source =
      '<svg width="50mm" height="50mm" viewBox="0 0 50 50" fill="none"><circle cx="25" cy="25" r="10" stroke="#00f"/><rect x="2" y="2" width="46" height="46" stroke="#f00"/></svg>';
    jobId = (await setUp<{ id: number }>('/api/jobs', 'POST', { name: 'Script/job: 1', source, machineId }))
      .id;
    const { reply: plan } = await api<PlanReply>(`/api/jobs/${jobId}/plan`);
    expect(plan).toMatchObject({ parts: 2, problem: null });
    expect(plan.passes.map((pass) => pass.operation)).toEqual(['kiss', 'through']);
    for (const part of [1, 2]) {
      const { status, reply } = await api<string>(`/api/jobs/${jobId}/machine-file?part=${part}`);
      expect(status).toBe(200);
      expect(reply).toMatch(/^IN;PA;SP1;\nPU/);
      expect(reply).not.toMatch(/FS|VS/);
    }
    expect((await api<Refused>(`/api/jobs/${jobId}/machine-file?part=3`)).status).toBe(404);
    expect((await api<Refused>(`/api/jobs/${jobId}/machine-file?part=x`)).status).toBe(400);
  });

  it('says what stands in the way of a plan, in mm', async () => {
    const { reply: job } = await api<Job>(`/api/jobs/${jobId}`);
    const change = (rest: object, version: number) =>
      api<Job>(`/api/jobs/${jobId}`, 'PATCH', { version, ...rest });
    const moved = await change(
      { layout: { ...job.layout, placements: [{ ...job.layout.placements[0]!, xMm: 300 }] } },
      job.version,
    );
    expect(moved.reply.version).toBe(job.version + 1);
    expect((await api<PlanReply>(`/api/jobs/${jobId}/plan`)).reply.problem).toMatch(
      /reaches \d+\.\d mm over/,
    );
    expect((await change({ name: 'late' }, job.version)).status).toBe(409);
    await change({ layout: job.layout, roles: {} }, job.version + 1);
    expect((await api<PlanReply>(`/api/jobs/${jobId}/plan`)).reply.problem).toMatch(/line 1 has no role/);
  });

  it('has no way to a machine without a link, and says so', async () => {
    const { reply: job } = await api<Job>(`/api/jobs/${jobId}`);
    const roles = { '|#0000ff': 'kiss', '|#ff0000': 'through' };
    await api(`/api/jobs/${jobId}`, 'PATCH', { version: job.version, roles });
    const { status, reply } = await api<Refused>(`/api/jobs/${jobId}/runs`, 'POST', {
      requestKey: 'a press of the key',
    });
    expect(status).toBe(502);
    expect(reply.error.message).toMatch(/Script desk has no link/);
  });

  it('tells the log of all this, as much of it as is asked for', async () => {
    const { reply } = await api<LogEntryReply[]>('/api/log?limit=5');
    expect(reply).toHaveLength(5);
    expect(
      (await api<LogEntryReply[]>('/api/log?limit=500')).reply.filter((entry) =>
        entry.detail.includes('Script label'),
      ).length,
    ).toBeGreaterThanOrEqual(6);
    expect((await api('/api/log?limit=0')).status).toBe(400);
    const { reply: day } = await api<LogEntryReply[]>('/api/log?from=2026-09-01&to=2026-09-30&limit=1000');
    expect(day.length).toBeGreaterThan(0);
    expect(day.every(({ at }) => at >= '2026-09-01' && at < '2026-10-01')).toBe(true);
    const { reply: runsOfOne } = await api<LogEntryReply[]>('/api/log?kind=run&machine=1');
    expect(runsOfOne.every(({ kind, what }) => kind === 'run' && what.includes('Gannet 600'))).toBe(true);
    expect((await api('/api/log?from=2026-09-30&to=2026-09-01')).status).toBe(400);
    expect((await api('/api/log?from=yesterday')).status).toBe(400);
  });

  it('takes a cut back once', async () => {
    const { cuts } = await answer('kiss');
    expect((await api(`/api/test-cuts/${cuts[0]!.id}`, 'DELETE')).status).toBe(200);
    expect((await api(`/api/test-cuts/${cuts[0]!.id}`, 'DELETE')).status).toBe(404);
    expect((await answer('kiss')).cuts).toHaveLength(3);
  });
});
