import { afterAll, describe, expect, it } from 'vitest';
import { acceptAll, api, arrive, go, setUp, visit, type Visitor } from '#e2e/support/app.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { orderStandIn } from '#e2e/support/orderStandIn.ts';
import type { Bench, StrangersRun } from '#e2e/support/strangersBench.ts';
import type { Material } from '#core/stack/material.ts';
import { rollCutter } from '#e2e/support/rollCutter.ts';
import type { PlanReply } from '#web/schemas/plan.ts';

/**
 * Benches that are not the demo's, with the run sheet as the only help: every stop of the run is one that the sheet of
 * steps told of, and the stand-in cuts with what truly sits in its seats.
 */
const visitors: Visitor[] = [];
let blades = 0;
afterAll(() => Promise.all(visitors.map((visitor) => visitor.leave())));

/** A machine, a sheet with its settings on it, and a job for them. */
async function setUpBench(
  name: string,
  bench: Bench,
): Promise<{ readonly jobId: number; readonly machineId: number; readonly visitor: Visitor }> {
  const machine = { ...rollCutter(name), link: { kind: 'standIn', model: 'roll' }, ...bench.machine };
  const { id: machineId } = await setUp<{ id: number }>('/api/machines', 'POST', machine);
  const { id: materialId, conditionId } = await setUp<{ id: number; conditionId: number }>(
    '/api/materials',
    'POST',
    {
      name: `Sheet of ${name}`,
      maker: 'unknown',
      family: bench.family,
      finish: 'matt',
      colourName: 'white',
      colourHex: '#f6f4ee',
      darkness: 0,
      stack: bench.stack,
      ...bench.material,
    },
  );
  if (bench.details) {
    const { id, isArchived: _, ...known } = (await api<Material>(`/api/materials/${materialId}`)).reply;
    await setUp(`/api/materials/${id}`, 'PUT', { ...known, details: { ...known.details, ...bench.details } });
  }
  blades += 1;
  const { id: bladeId } = await setUp<{ id: number }>('/api/blades', 'POST', {
    number: 740 + blades,
    kind: '45° fine',
    angleDeg: 45,
    offsetMm: 0.25,
    lifeMetres: 360,
  });
  await setUp(`/api/stations/${machineId}`, 'PATCH', { conditionId, bladeId });
  for (const [operation, values] of Object.entries(bench.settings)) {
    const key = { conditionId, machineId, bladeKind: '45° fine', operation, basedOn: 0 };
    const whole = { exposureMm: 0.6, speed: 50, passes: 1, offsetMm: 0.25, overcutMm: 0.5, ...values };
    await setUp('/api/settings', 'POST', { ...key, values: whole, reason: 'as the last owner had it' });
  }
  const source = bench.drawing;
  const job = await setUp<{ id: number }>('/api/jobs', 'POST', { name: `Job of ${name}`, source, machineId });
  await setUp(`/api/jobs/${job.id}`, 'PATCH', {
    version: 1,
    roles: bench.roles,
    ...(bench.print ? { print: bench.print } : {}),
    ...(bench.order ? { passes: { ...PLAIN_CHOICES, order: bench.order } } : {}),
  });
  const visitor = await visit('Ines', machineId);
  visitors.push(visitor);
  return { jobId: job.id, machineId, visitor };
}

/** Fits a stand-in out in another way, on its machine's page. */
async function fitOut({ page }: Visitor, machineId: number, way: RegExp): Promise<void> {
  await go(page, `/machines/${machineId}`);
  const button = page.getByRole('button', { name: way });
  await button.click();
  await expect.poll(() => button.getAttribute('aria-pressed')).toBe('true');
}

/** The steps of the run sheet as it stands on screen, each with its heading and its figures. */
async function readRunSheet({ page }: Visitor, jobId: number): Promise<readonly string[]> {
  await go(page, `/jobs/${jobId}`);
  await page.getByRole('tab', { name: /\d Run sheet/ }).click();
  await page.getByRole('heading', { name: 'Load', exact: true }).waitFor();
  const { runSheet } = (await api<PlanReply>(`/api/jobs/${jobId}/plan`)).reply;
  return (runSheet?.sections ?? []).flatMap((section) =>
    section.steps.map(({ words, figures }) => `${section.heading}: ${words} ${figures.flat().join(' ')}`),
  );
}

/** Reads the run sheet, sends the job, and does what the run asks for. @returns what it asked, and what was cut */
async function play(visitor: Visitor, jobId: number) {
  const { page } = visitor;
  const steps = await readRunSheet(visitor, jobId);
  await page.getByRole('tab', { name: /\d Cut/ }).click();
  await acceptAll(page);
  await page.getByRole('button', { name: /^Send to/ }).click();
  await arrive(page, /^\/runs\/\d+$/);
  const id = Number(/\d+$/.exec(new URL(page.url()).pathname)?.[0]);
  const unload = page.getByRole('button', { name: /unload/ });
  const done = page.getByRole('button', { name: 'Done by hand, go on' });
  const goOn = page.getByRole('button', { name: /^Go on/ });
  const stops: string[] = [];
  let looks = 0;
  for (let stop = 0; stop < 12; stop++) {
    await unload.or(done).or(goOn).first().waitFor({ timeout: 60_000 });
    if (await unload.isVisible()) break;
    const { reply } = await api<{ message: string }>(`/api/runs/${id}`);
    const isUnread = /marks/.test(reply.message);
    // The sheet is put in again, and the light falls otherwise.
    if (isUnread) looks += 1;
    else stops.push(reply.message);
    const next = isUnread ? goOn.first() : done;
    await next.click();
    await next.waitFor({ state: 'hidden' });
  }
  await unload.click();
  const { reply: run } = await api<StrangersRun>(`/api/runs/${id}`);
  const deepest = (operation: string) =>
    run.outcomes
      .filter(({ index }) => run.strokes[index]?.operation === operation)
      .map(({ spans }) => Math.max(...spans.map(({ grade }) => grade)));
  const widths = run.strokes.map(({ points }) => {
    const across = points.map(({ x }) => x);
    return Math.max(...across) - Math.min(...across);
  });
  return { steps, stops, looks, deepest, widths };
}

describe('a printed carton on a machine with one holder that prints as well', () => {
  it('is creased, printed, then the blade goes back in with its exposure, and it is cut: no crease tool "cuts"', async () => {
    const { jobId, visitor } = await setUpBench('Puffin one', {
      machine: {
        kind: 'matFed',
        operations: ['crease', 'through'],
        hasPrinter: true,
        toolSeats: [{ name: 'holder', holds: 'blade', tool: '45° fine' }],
      },
      family: 'foldingCarton',
      stack: [{ role: 'body', caliperUm: 400, isMeasured: true }],
      settings: {
        crease: { force: 290, exposureMm: 0, offsetMm: 0, overcutMm: 0 },
        through: { force: 260, passes: 2 },
      },
      drawing:
        '<svg width="60mm" height="40mm" viewBox="0 0 60 40" fill="none"><rect x="24" y="12" width="12" height="16" fill="#cc3333"/><path d="M20 4V36M40 4V36" stroke="#00f"/><rect x="4" y="4" width="52" height="32" stroke="#f00"/></svg>',
      roles: { '|#cc3333': 'art', '|#0000ff': 'crease', '|#ff0000': 'through' },
      print: { hasMarks: false, bleedMm: 0, keepsTestCorner: false },
      order: ['crease', 'print', 'through'],
    });
    const { steps, stops, deepest } = await play(visitor, jobId);
    const at = (pattern: RegExp) => steps.findIndex((step) => pattern.test(step));
    expect(at(/fit the crease tool/)).toBeGreaterThanOrEqual(0);
    expect(at(/fit the crease tool/)).toBeLessThan(at(/Crease with the holder tool/));
    expect(at(/^Print:/)).toBeGreaterThan(at(/Crease with the holder tool/));
    expect(at(/fit the blade/)).toBeGreaterThan(at(/^Print:/));
    expect(at(/Set the exposure by hand/)).toBeGreaterThan(at(/fit the blade/));
    expect(at(/Cut through with the holder tool/)).toBeGreaterThan(at(/Set the exposure by hand/));
    // The run stops where the sheet said, and says the same.
    expect(stops).toHaveLength(1);
    expect(stops[0]).toMatch(/fit the blade/);
    expect(deepest('crease').every((grade) => grade === 0)).toBe(true);
    expect(deepest('through').every((grade) => grade >= 7)).toBe(true);
    expect(visitor.errors).toEqual([]);
  });
});

describe('pop-out stickers on a machine with a strip and a groove, whose panel holds numbered cuts', () => {
  it('are kissed over the strip, the holder is moved, and they are perforated over the groove; dialled once', async () => {
    const { jobId, machineId, visitor } = await setUpBench('Puffin two', {
      machine: {},
      family: 'printableVinyl',
      stack: [
        { role: 'face', caliperUm: 80, isMeasured: true },
        { role: 'adhesive', caliperUm: 25, isMeasured: true },
        { role: 'liner', caliperUm: 140, isMeasured: true },
      ],
      settings: { kiss: { force: 70 }, perforated: { force: 440, tabLengthMm: 1, cutLengthMm: 10 } },
      drawing:
        '<svg width="60mm" height="40mm" viewBox="0 0 60 40" fill="none"><circle cx="30" cy="20" r="10" stroke="#00f"/><circle cx="30" cy="20" r="15" stroke="#f00"/></svg>',
      roles: { '|#0000ff': 'kiss', '|#ff0000': 'perforated' },
    });
    await fitOut(visitor, machineId, /^Strip, groove and four numbered cuts/);
    const { steps, stops, deepest } = await play(visitor, jobId);
    const at = (pattern: RegExp) => steps.findIndex((step) => pattern.test(step));
    expect(at(/^Dial once: Cut 1 of the panel, for the kiss: the back seat/)).toBeGreaterThanOrEqual(0);
    expect(at(/^Dial once: Cut 2 of the panel, for the perforation: the front seat/)).toBeLessThan(
      at(/^Load:/),
    );
    expect(at(/Move the blade with its holder from the back seat to the front seat/)).toBeGreaterThan(
      at(/Kiss with the back tool/),
    );
    expect(stops).toHaveLength(1);
    expect(stops[0]).toMatch(/^Move the blade with its holder/);
    expect(stops[0]).not.toMatch(/Dial/);
    expect(deepest('kiss').every((grade) => grade <= 6)).toBe(true);
    expect(Math.min(...deepest('perforated'))).toBeGreaterThanOrEqual(7);
    expect(visitor.errors).toEqual([]);
  });
});

describe('a glossy transfer for cloth', () => {
  it('is told from print to wash, each step in its place, and warned of before anything is sent', async () => {
    const details = {
      printSide: 'top',
      isMirrored: true,
      heat: { temperatureC: 150, seconds: 15, note: '' },
    };
    const { jobId, visitor } = await setUpBench('Puffin three', {
      machine: {
        marks: {
          scheme: 'fourCorners',
          shape: 'cross',
          lengthMm: 8,
          thicknessMm: 1,
          insetMm: 10,
          alongSide: 3,
        },
      },
      family: 'transferFilm',
      material: { finish: 'gloss' },
      details,
      stack: [
        { role: 'face', caliperUm: 85, isMeasured: true },
        { role: 'liner', caliperUm: 100, isMeasured: true },
      ],
      settings: { kiss: { force: 55 } },
      drawing:
        '<svg width="60mm" height="60mm" viewBox="0 0 60 60"><circle cx="30" cy="30" r="20" fill="#c33"/><circle cx="30" cy="30" r="18" fill="none" stroke="#00f"/></svg>',
      roles: { '|#cc3333': 'art', '|#0000ff': 'kiss' },
      print: { hasMarks: true, bleedMm: 0, keepsTestCorner: false },
    });
    const steps = await readRunSheet(visitor, jobId);
    const inOrder = [
      /Mirror the print/,
      /Set the page to/,
      /so that the face is printed/,
      /Let the ink dry/,
      /Measure the line at the lower edge: it is \d+ mm/,
      /^Load:/,
      /Dull every mark/,
      /Have the machine read the marks/,
      /Kiss with the holder tool/,
      /^Weed:/,
      /^Mask|mask/,
      /^Press: .*150 °C 15/,
      /^Wash|wash/,
    ];
    const places = inOrder.map((pattern) => steps.findIndex((step) => pattern.test(step)));
    expect(places, steps.join('\n')).toEqual(places.toSorted((a, b) => a - b));
    expect(Math.min(...places), steps.join('\n')).toBeGreaterThanOrEqual(0);
    const { page } = visitor;
    await page.getByRole('tab', { name: /\d Sheet/ }).click();
    await page.getByText(/four crosses of 8 × 1 mm, 10 mm from the edges, 3 along each long side/).waitFor();
    await page.getByRole('tab', { name: /\d Cut/ }).click();
    await page.getByText('This sheet throws light back at the sensor').waitFor();
    const { deepest, looks } = await play(visitor, jobId);
    // Loaded again as the sheet of steps says, it is read.
    expect(looks).toBeLessThan(12);
    expect(deepest('kiss').length).toBeGreaterThan(0);
    expect(deepest('kiss').every((grade) => grade >= 3 && grade <= 5)).toBe(true);
    // The tape that the sheet of steps names leaves the print whole; a stronger one does not.
    const standIn = (await page.getByRole('link', { name: /its stand-in/ }).getAttribute('href'))!;
    const mask = (tape: string) => orderStandIn(standIn, { order: 'mask', tape });
    expect(await mask('paper')).toMatchObject({ ok: true, inkLifted: 0 });
    expect(await mask('strong')).toMatchObject({ said: 'the tape lifts 50 % of the ink' });
    expect(visitor.errors).toEqual([]);
  });
});

describe('a stencil without a frame', () => {
  it('is offered one, takes it with a tap, and is cut inside it: openings first, the frame last', async () => {
    const { jobId, visitor } = await setUpBench('Puffin four', {
      machine: { kind: 'flatbed' },
      family: 'stencilSheet',
      stack: [{ role: 'body', caliperUm: 190, isMeasured: true }],
      settings: { through: { force: 300, passes: 2 } },
      drawing:
        '<svg width="120mm" height="120mm" viewBox="0 0 120 120" fill="none"><circle cx="50" cy="60" r="8" stroke="#f00"/><circle cx="75" cy="60" r="8" stroke="#f00"/></svg>',
      roles: { '|#ff0000': 'through' },
    });
    const { page } = visitor;
    await go(page, `/jobs/${jobId}`);
    await page.getByRole('tab', { name: /\d Drawing/ }).click();
    await page.getByRole('button', { name: 'Add a frame of 25 mm' }).click();
    await page.getByText('frame added').waitFor();
    const { deepest, stops, widths } = await play(visitor, jobId);
    expect(stops).toEqual([]);
    const cut = [...deepest('through'), ...deepest('slit')];
    expect(cut.length).toBeGreaterThanOrEqual(6);
    expect(Math.min(...cut)).toBeGreaterThanOrEqual(7);
    // 41 mm of openings with 25 mm around them.
    expect(widths.at(-1)).toBeCloseTo(91, 0);
    expect(Math.max(...widths.slice(0, 4))).toBeLessThan(20);
    expect(visitor.errors).toEqual([]);
  });
});
