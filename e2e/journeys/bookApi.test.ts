import { describe, expect, it } from 'vitest';
import type { Material } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Station } from '#core/station/station.ts';
import { api, setUp } from '#e2e/support/app.ts';
import { rollCutter } from '#e2e/support/rollCutter.ts';
import type { LookupHit } from '#web/schemas/lookup.ts';
import type { AuditReply, BenchAnswer, BookPage, BulkReply, SettingSummary } from '#web/schemas/setting.ts';

/** The settings book as a script uses it: everything that the screens can do, and every refusal in words. */
interface Refused {
  readonly error: { readonly code: string; readonly message: string };
}

const values = { force: 90, exposureMm: 0.3, speed: 200, passes: 1, offsetMm: 0.25, overcutMm: 0.4 };
const desk = {
  ...rollCutter('Script levels'),
  kind: 'flatbed',
  forceScale: { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 0, gfPerUnit: 10 },
  speedScale: { unit: 'cm/s', min: 1, max: 40, step: 1, mmPerSPerUnit: 10 },
  depthScale: { kind: 'automatic', stepMm: 0.1, maxMm: 1 },
  numbersOwner: 'panel',
  operations: ['kiss', 'through', 'perforated'],
};
const sheet = {
  name: 'Script film',
  maker: 'Fulmar Works',
  family: 'plainVinyl',
  finish: 'matt',
  colourName: 'kelp green',
  colourHex: '#335522',
  darkness: 0.4,
  stack: [
    { role: 'face', caliperUm: 75, isMeasured: true },
    { role: 'adhesive', caliperUm: 20, isMeasured: true },
    { role: 'liner', caliperUm: 120, isMeasured: false },
  ],
};

let deskId = 0;
let material: Material;
let kiss: SettingSummary;
const key = (operation: string, change: object = {}) => ({
  conditionId: material.conditions[0]!.id,
  machineId: 1,
  bladeKind: '45° fine',
  operation,
  values,
  reason: 'by script',
  basedOn: 0,
  ...change,
});
const keep = (body: object) => api<SettingSummary & Refused>('/api/settings', 'POST', body);

describe('the book by script', () => {
  it('adds a machine of its own equipment, changes it against its version, and never twice from one', async () => {
    deskId = (await setUp<{ id: number }>('/api/machines', 'POST', desk)).id;
    const machine = (await api<Machine[]>('/api/machines')).reply.find(({ id }) => id === deskId)!;
    expect(machine).toMatchObject({
      kind: 'flatbed',
      operations: desk.operations,
      perforation: 'drawn',
      version: 1,
    });
    const change = { ...desk, toolSeats: [{ name: 'one', holds: 'blade', tool: '45° fine' }], version: 1 };
    const changed = await api<{ undoId: number }>(`/api/machines/${deskId}`, 'PUT', change);
    expect(changed.status).toBe(200);
    expect((await api<Refused>(`/api/machines/${deskId}`, 'PUT', change)).status).toBe(409);
    expect(
      (await api<Refused>('/api/machines', 'POST', { ...desk, name: 'x', operations: [] })).reply.error
        .message,
    ).toMatch(/operations: at least one/);
    expect((await api(`/api/machines/99999`, 'PUT', change)).status).toBe(404);
  });

  it('measures a scale, refuses impossible readings with the reason, and takes it back', async () => {
    const path = `/api/machines/${deskId}/calibrations`;
    const refused = await api<Refused>(path, 'POST', {
      readings: [
        { force: 2, grams: 50 },
        { force: 20, grams: 30 },
        { force: 30, grams: 300 },
      ],
    });
    expect(refused).toMatchObject({ status: 400 });
    expect(refused.reply.error.message).toMatch(/20 read 30 g, less than 2 with 50 g/);
    const readings = [2, 10, 20, 30].map((force) => ({ force, grams: 8 * force + 5 }));
    const { status, reply } = await api<Machine>(path, 'POST', { readings });
    expect(status).toBe(201);
    expect(reply.forceScale.measured?.at(0)).toMatchObject({ force: 1 });
    expect((await api(`${path}/99999`, 'DELETE')).status).toBe(404);
  });

  it('adds a material, changes all that is known of it, and finds it by every word of it', async () => {
    const { reply: added } = await api<{ id: number }>('/api/materials', 'POST', sheet);
    material = (await api<Material>(`/api/materials/${added.id}`)).reply;
    const { id, isArchived, ...facts } = material;
    const details = { ...material.details, nicknames: ['sea lettuce'], product: 'FW-75' };
    expect((await api(`/api/materials/${id}`, 'PUT', { ...facts, details })).status).toBe(200);
    expect((await api(`/api/materials/${id}`, 'PUT', { ...facts, details })).status).toBe(409);
    for (const text of ['fulmar', 'kelp', 'sea letuce', 'fw75', 'scrpt film', 'MATT kelp']) {
      const { reply } = await api<{ hits: LookupHit[] }>(`/api/lookup?${new URLSearchParams({ text })}`);
      expect(
        reply.hits.map(({ name }) => name),
        text,
      ).toContain('Script film');
    }
    expect(isArchived).toBe(false);
    material = (await api<Material>(`/api/materials/${id}`)).reply;
  });

  it('keeps a setting on the steps of the machine, with the state and the reason for it', async () => {
    const kept = await keep(key('kiss', { values: { ...values, force: 90.4, speed: 203 } }));
    expect(kept).toMatchObject({
      status: 201,
      reply: { state: 'tried', stateReason: '3 more clean runs prove it' },
    });
    expect(kept.reply.revision.values).toMatchObject({ force: 90, speed: 200 });
    kiss = kept.reply;
    const late = await keep(key('kiss', { values: { ...values, force: 95 } }));
    expect(late.status).toBe(409);
    expect(late.reply.error.message).toMatch(/bench kept revision 1. Nothing was overwritten/);
  });

  it.each([
    [{ values: { ...values, force: 9000 } }, 422, /10 to 500 gf/],
    [{ values: { ...values, speed: 5000 } }, 422, /speed 5000 mm\/s .* 10 to 600/],
    [{ values: { ...values, exposureMm: 4 } }, 422, /at most 1.5 mm/],
    [{ values: { ...values, passes: 1.5 } }, 400, /a whole number/],
    [{ values: { ...values, tabLengthMm: 40 }, operation: 'perforated' }, 422, /tab length 40 mm is outside/],
    [{ operation: 'crease' }, 400, /cannot do this: crease/],
    [{ operation: 'melt' }, 400, /operation/],
    [{ machineId: 99999 }, 404, /no machine 99999/],
    [{ bladeKind: ' ' }, 400, /bladeKind: is missing/],
  ] as const)('refuses %j in words', async (change, status, words) => {
    const refused = await keep({ ...key('through'), ...change });
    expect(refused.status).toBe(status);
    expect(refused.reply.error.message).toMatch(words);
  });

  it('keeps tabs at the kiss force, at one of their own, or whole, as is sent', async () => {
    const perforated = await keep(key('perforated', { values: { ...values, force: 190 } }));
    expect(perforated.reply.revision.values).toMatchObject({ force: 190, tabWay: 'kissForce', tabForce: 90 });
    const half = { ...values, force: 190, tabForce: 11 };
    const lifted = await keep(key('perforated', { values: half, basedOn: 1 }));
    expect(lifted.reply.revision.values).toMatchObject({ tabWay: 'ownForce', tabForce: 11 });
    // A blade that has no kiss yet leaves its tabs whole; told to follow the kiss, it is refused.
    const whole = await keep(key('perforated', { bladeKind: '60° deep' }));
    expect(whole.reply.revision.values).toMatchObject({ tabWay: 'lifted' });
    const follows = { ...values, tabWay: 'kissForce' as const };
    const other = await keep(key('perforated', { bladeKind: '30° cork', values: follows }));
    expect(other.reply.error.message).toMatch(/keep a kiss setting first/);
  });

  it('locks, opens, restores and tells of it in the audit trail', async () => {
    const path = `/api/settings/${kiss.id}`;
    await api(`${path}/lock`, 'POST', { isLocked: true });
    expect((await keep(key('kiss', { basedOn: 1 }))).status).toBe(409);
    await api(`${path}/lock`, 'POST', { isLocked: false });
    await keep(key('kiss', { basedOn: 1, values: { ...values, force: 97 } }));
    const back = await api<SettingSummary>(`${path}/restore`, 'POST', { revision: 1, basedOn: 2 });
    expect(back.reply.revision).toMatchObject({
      revision: 3,
      values: { force: 90 },
      reason: 'revision 1 restored',
    });
    expect((await api(`${path}/restore`, 'POST', { revision: 44, basedOn: 3 })).status).toBe(404);
    const { reply } = await api<AuditReply[]>(`/api/audit?entity=setting&entityId=${kiss.id}`);
    expect(reply.map(({ action }) => action)).toEqual(['change', 'change', 'unlock', 'lock', 'add']);
    expect(reply[1]!.what).toContain('force 90 to 97');
    expect((await api('/api/audit?entity=setting')).status).toBe(400);
  });

  it('copies through measured grams to a machine with levels, as a prediction', async () => {
    const copied = await api<SettingSummary>(`/api/settings/${kiss.id}/copy`, 'POST', { machineId: deskId });
    expect(copied).toMatchObject({ status: 201, reply: { state: 'predicted', machine: 'Script levels' } });
    // 90 gf on a scale measured as 8 g a level and 5 g at none is level 10.6.
    expect(copied.reply.revision.values).toMatchObject({ force: 11, speed: 20 });
    expect(copied.reply.revision.sources).toMatchObject({ force: 'copied' });
  });

  it('changes many at once and names each that it could not', async () => {
    const ids = [kiss.id, 999_999];
    const bulk = (body: object) => api<BulkReply>('/api/settings/bulk', 'POST', body);
    const set = await bulk({ action: 'set', ids, field: 'passes', value: 2, reason: 'two from now on' });
    expect(set.reply).toMatchObject({
      done: [kiss.id],
      refused: [{ id: 999_999, reason: expect.stringContaining('no setting') }],
    });
    expect((await bulk({ action: 'archive', ids: [kiss.id] })).reply.done).toEqual([kiss.id]);
    const away = await api<BookPage>('/api/settings?isArchived=true&text=script');
    expect(away.reply.settings.map(({ id }) => id)).toEqual([kiss.id]);
    await bulk({ action: 'restore', ids: [kiss.id] });
    expect((await bulk({ action: 'lock', ids: [] })).status).toBe(400);
  });

  it('answers at the station for the colour that lies there, and takes it off again when it is kept', async () => {
    const { id, isArchived, ...facts } = material;
    const colours = [{ name: 'coal', hex: '#111111', darkness: 1, forcePercent: 10 }];
    const details = { ...material.details, colours };
    await api(`/api/materials/${id}`, 'PUT', { ...facts, details });
    const before = (await api<Station>('/api/stations/1')).reply;
    await api('/api/stations/1', 'PATCH', { conditionId: material.conditions[0]!.id, colour: 'coal' });
    const { reply } = await api<BenchAnswer>('/api/stations/1/answers/kiss');
    expect(reply.answer).toMatchObject({
      values: { force: 99 },
      corrections: [{ kind: 'colour', name: 'coal' }],
    });
    const kept = await api<BenchAnswer>('/api/stations/1/settings', 'POST', {
      operation: 'kiss',
      values: { ...values, force: 110, passes: 2 },
      sources: { force: 'testCuts' },
      basedOn: reply.revision!.revision,
    });
    expect(kept.reply.revision?.values.force).toBe(100);
    expect(kept.reply.answer?.values.force).toBe(110);
    const back = { conditionId: before.loaded?.condition.id ?? null, lot: before.loaded?.lot ?? '' };
    await api('/api/stations/1', 'PATCH', back);
    expect(isArchived).toBe(false);
  });

  it('puts a material away and takes the step back', async () => {
    const path = `/api/materials/${material.id}`;
    const { reply } = await api<{ undoId: number }>(`${path}/archive`, 'POST', { isArchived: true });
    const find = async () =>
      (await api<{ hits: LookupHit[] }>('/api/lookup?text=script%20film')).reply.hits.filter(
        ({ missed }) => missed.length === 0,
      ).length;
    expect(await find()).toBe(0);
    expect((await api(`/api/audit/${reply.undoId}/undo`, 'POST')).status).toBe(200);
    expect(await find()).toBe(1);
    const added = (await api<AuditReply[]>(`/api/audit?entity=material&entityId=${material.id}`)).reply.at(
      -1,
    )!;
    expect((await api<Refused>(`/api/audit/${added.id}/undo`, 'POST')).reply.error.message).toMatch(
      /cannot be taken back here/,
    );
    expect((await api('/api/audit/999999/undo', 'POST')).status).toBe(404);
  });

  it('refuses tools that are not there, numbers that are taken, and care that is none', async () => {
    const blade = { number: 77, kind: '30° film', angleDeg: 30, offsetMm: 0.2, lifeMetres: 500 };
    const { reply, status } = await api<{ id: number }>('/api/blades', 'POST', blade);
    expect(status).toBe(201);
    expect((await api('/api/blades', 'POST', blade)).status).toBe(409);
    expect((await api(`/api/blades/${reply.id}`, 'PATCH', { offsetMm: 0.22, reachMm: 1.1 })).status).toBe(
      200,
    );
    expect((await api(`/api/blades/${reply.id}/care`, 'POST', { care: 'polish' })).status).toBe(400);
    expect((await api('/api/blades/99999/care', 'POST', { care: 'clean' })).status).toBe(404);
    const { reply: upkeep } = await api<{ blades: { number: number; offsetMm: number; reachMm: number }[] }>(
      '/api/upkeep',
    );
    expect(upkeep.blades.find(({ number }) => number === 77)).toMatchObject({ offsetMm: 0.22, reachMm: 1.1 });
    const mat = { number: 78, tack: 'light', widthMm: 300, heightMm: 300 };
    const added = await api<{ id: number }>('/api/mats', 'POST', mat);
    expect((await api(`/api/mats/${added.reply.id}`, 'PATCH', { isForFineWork: true })).status).toBe(200);
    expect((await api(`/api/mats/${added.reply.id}/care`, 'POST', { care: 'restick' })).status).toBe(200);
    expect((await api('/api/mats', 'POST', { ...mat, number: 79, tack: 'sticky' })).status).toBe(400);
    const shareOf = async () =>
      (await api<{ mats: { number: number; feltShare: number | null }[] }>('/api/upkeep')).reply.mats.find(
        ({ number }) => number === 78,
      )?.feltShare;
    expect(await shareOf()).toBeNull();
    const test = (feel: string) => api(`/api/mats/${added.reply.id}/tack`, 'POST', { feel });
    expect((await test('steady')).status).toBe(200);
    // A light mat is reckoned at 45 when new; it came off with a steady pull, which speaks for 60.
    expect(await shareOf()).toBeCloseTo(60 / 45, 2);
    expect((await test('sticky')).status).toBe(400);
    // Re-stuck, it is another surface.
    await api(`/api/mats/${added.reply.id}/care`, 'POST', { care: 'restick' });
    expect(await shareOf()).toBeNull();
  });
});
