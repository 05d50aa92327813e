import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { realpathSync } from 'node:fs';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { ADDRESS, api, follow, go, mine, visit, type Visitor, setUp } from '#e2e/support/app.ts';
import { conditionOf } from '#e2e/support/drawer.ts';
import { makeLine } from '#e2e/support/linePair.ts';
import { oddMachine, type OddMachine } from '#e2e/support/oddMachine.ts';
import { rollCutter } from '#e2e/support/rollCutter.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';

/** A stranger's machines, added on the screen: a kit on a serial line, and a cutter on the network that says nothing. */
let ines: Visitor;
const open: { close: () => unknown }[] = [];
beforeAll(async () => {
  ines = await visit('Ines', 1);
});
afterAll(async () => {
  await ines.leave();
  for (const one of open.splice(0)) await one.close();
});

interface Refused {
  readonly error: { readonly message: string };
}

/** Strokes enough that a person can step in. */
const stripes = `<svg width="90mm" height="90mm" viewBox="0 0 90 90" fill="none" stroke="#000">${Array.from(
  { length: 24 },
  (_, row) => `<path d="M5 ${5 + 3 * row}H85"/>`,
).join('')}</svg>`;

/** Loads a sheet on a machine and keeps a kiss for it. */
async function equip(machineId: number): Promise<void> {
  const conditionId = await conditionOf('Mooring vinyl, navy', 'bare');
  await api(`/api/stations/${machineId}`, 'PATCH', { conditionId });
  const { reply } = await api<BenchAnswer>(`/api/stations/${machineId}/answers/kiss`);
  const { values, sources } = reply.answer!.suggestion;
  const kept = await api<Refused>(`/api/stations/${machineId}/settings`, 'POST', {
    operation: 'kiss',
    values: { ...values, force: 90, speed: 80, passes: 1 },
    sources,
    reason: 'by eye',
    basedOn: 0,
  });
  expect(kept.status, JSON.stringify(kept.reply)).toBe(201);
}

async function sendJob(machineId: number): Promise<number> {
  const job = await setUp<{ id: number; roles: object }>('/api/jobs', 'POST', {
    name: 'Stripes',
    source: stripes,
    machineId,
  });
  const { reply: whole } = await api<{ version: number }>(`/api/jobs/${job.id}`);
  await api(`/api/jobs/${job.id}`, 'PATCH', { version: whole.version, roles: { '|#000000': 'kiss' } });
  const started = await api<{ id: number } & Refused>(`/api/jobs/${job.id}/runs`, 'POST', {
    requestKey: crypto.randomUUID(),
  });
  expect(started.status, JSON.stringify(started.reply)).toBe(201);
  return started.reply.id;
}

describe('a kit that speaks G-code, on a serial line', () => {
  let cutter: CutterService;
  let machineId: number;

  it('is added on the screen, and tried: the head moves and the machine answers', async () => {
    cutter = await serveCutter({ model: 'flat', dataPort: 0, panelPort: 0, seed: 8, pace: 20 });
    open.push(cutter);
    const line = await makeLine(() => `tcp:127.0.0.1:${cutter.dataPort}`);
    open.push({ close: () => line.unplug() });
    const { page } = ines;
    await go(page, '/machines/new');
    await page.getByLabel('What you call it').fill('Sanderling kit');
    await page.getByLabel('Kind').selectOption('flatbed');
    await page.getByLabel('Language it speaks').selectOption('G-code');
    await page.getByText(/answer every line/).waitFor();
    await page.getByLabel('The tool comes down by').selectOption('height');
    await page.getByLabel('Height when up, mm').waitFor();
    await page.getByLabel('The tool comes down by').selectOption('force');
    await page.getByLabel('Where its files go').selectOption('a serial line');
    await page.getByLabel('Device').fill('/etc/passwd');
    await page.getByLabel('Speed of the line, baud').selectOption('115200');
    await page.getByRole('button', { name: /Keep it and work at it/ }).click();
    await page.getByText(/a printer device or a serial line of this computer/).waitFor();
    await page.getByLabel('Device').fill(realpathSync(line.path));
    await follow(page, page.getByRole('button', { name: /Keep it and work at it/ }), /^\/$/);
    const { reply } = await api<{ id: number; name: string }[]>('/api/machines');
    machineId = reply.find(({ name }) => name === 'Sanderling kit')!.id;
    await go(page, `/machines/${machineId}`);
    await page.getByRole('button', { name: /Try it/ }).click();
    await page.getByText('The machine answered. Did the head move?').waitFor();
    await page.getByRole('button', { name: 'No', exact: true }).click();
    await page.getByText(/Is the baud rate the one/).waitFor();
    await page.getByRole('button', { name: /Try it/ }).click();
    await page.getByRole('button', { name: 'Yes', exact: true }).click();
    await page.getByText(/jobs can be sent to Sanderling kit/).waitFor();
    expect(ines.errors).toEqual([]);
  });

  it('cuts a job, acknowledges its strokes, pauses, and stops when told', async () => {
    await equip(machineId);
    const layers = [{ role: 'face', caliperUm: 70 }];
    const sheet = { key: 'kit', family: 'plainVinyl', darkness: 0, layers };
    cutter.state.cutter.load({ sheet, exposureMm: 0.3, bladeMetres: 0, isFreshSheet: true });
    const id = await sendJob(machineId);
    const { page } = ines;
    await go(page, `/runs/${id}`);
    await page.getByText(/[3-9] of 24/).waitFor();
    await page.getByText('cut, nobody has looked yet', { exact: true }).waitFor();
    await page.getByRole('button', { name: 'Pause' }).click();
    await page.getByText('Paused', { exact: true }).waitFor();
    await page.getByRole('button', { name: 'Go on' }).click();
    await page.getByText('Cutting', { exact: true }).waitFor();
    await page.getByRole('button', { name: 'Stop' }).click();
    await page.getByText('Stopped', { exact: true }).waitFor();
    const { reply: run } = await api<{ outcomes: unknown[] }>(`/api/runs/${id}`);
    expect(cutter.state.cutter.sheetStrokes.length - run.outcomes.length).toBeLessThanOrEqual(1);
    await page.getByText('What happened').click();
    await page.getByText('Stop, Ines').waitFor();
    await page.getByText('The machine obeyed the stop').waitFor();
  });
});

describe('a cutter on the network that says nothing', () => {
  let machine: OddMachine;
  let machineId: number;

  it('is never the application’s own database', async () => {
    const port = Number(new URL(mine('FEATHER_TEST_DATABASE_URL')).port);
    const link = { kind: 'address', host: 'localhost', port };
    const { status, reply } = await api<Refused>('/api/machines', 'POST', { ...rollCutter('Own'), link });
    expect(status).toBe(400);
    expect(reply.error.message).toMatch(/the application’s own database: no cutter listens there/);
    const itself = { kind: 'address', host: '127.0.0.1', port: Number(new URL(ADDRESS).port) };
    const again = await api<Refused>('/api/machines', 'POST', { ...rollCutter('Own'), link: itself });
    expect(again.reply.error.message).toMatch(/is the application itself/);
  });

  it('is sent a job little by little; stopped, the page says in big letters where to stop it', async () => {
    machine = await oddMachine(() => undefined);
    open.push(machine);
    const link = { kind: 'address', host: '127.0.0.1', port: machine.port };
    machineId = (await setUp<{ id: number }>('/api/machines', 'POST', { ...rollCutter('Knot 300'), link }))
      .id;
    await equip(machineId);
    const id = await sendJob(machineId);
    const { page } = ines;
    await go(page, `/runs/${id}`);
    await page.getByText(/\d+ of 24 strokes sent/).waitFor();
    expect(await page.getByRole('button', { name: 'Pause' }).count()).toBe(0);
    await page.getByRole('button', { name: 'Stop' }).click();
    const alert = page.getByRole('alert');
    await alert.getByText(/Stop it at the machine’s own panel, now/).waitFor();
    const size = await alert
      .getByText(/Stop it at the/)
      .evaluate((element) => parseFloat(getComputedStyle(element).fontSize));
    expect(size).toBeGreaterThanOrEqual(28);
    const out = machine.received().match(/PD/g)!.length;
    await new Promise((resolve) => setTimeout(resolve, 700));
    expect(machine.received().match(/PD/g)!.length).toBe(out);
    expect(out).toBeLessThan(24);
    await page
      .getByRole('button', { name: new RegExp(`Strokes 1 to ${out} are cut: go on after them`) })
      .click();
    await page.getByText(new RegExp(`\\d+ of 24 strokes sent`)).waitFor();
    await page.getByText('Look before unloading').waitFor({ timeout: 120_000 });
    expect(machine.received().match(/PD/g)).toHaveLength(24);
    await page.getByRole('button', { name: /unload/ }).click();
    await page.getByText('Done', { exact: true }).waitFor();
  });

  it('is tried, and not while its sheet is in', async () => {
    const tried = await api<{ hasAnswered: boolean }>(`/api/machines/${machineId}/try`, 'POST', {});
    expect(tried.reply).toEqual({ hasAnswered: false });
    expect(machine.received()).toMatch(/PU400,0;PU0,0;SP0;\n$/);
    const id = await sendJob(machineId);
    const refused = await api<Refused>(`/api/machines/${machineId}/try`, 'POST', {});
    expect(refused.status).toBe(409);
    expect(refused.reply.error.message).toMatch(/still in this machine/);
    await api(`/api/runs/${id}/stop`, 'POST', {});
    await api(`/api/runs/${id}/stop`, 'POST', {});
    machine.close();
    const gone = await api<Refused>(`/api/machines/${machineId}/try`, 'POST', {});
    expect(gone.reply.error.message).toMatch(/No cutter answers/);
  });
});
