import { describe, expect, it } from 'vitest';
import { composeTestPass } from '#core/job/composeTestPass.ts';
import { composeRunSheet, type RunSheetOrder } from '#core/job/composeRunSheet.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { splitParts } from '#core/passes/splitParts.ts';
import { sampleDesign, samplePlan, samplePlanMachine } from '#core/tests/sampleJob.ts';
import { usualWaits } from '#core/prep/waitOrder.ts';
import { findWait } from '#core/prep/waits.ts';
import type { Family } from '#core/stack/families/families.ts';
import type { ConditionKind } from '#core/stack/material.ts';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import { PLAIN_EQUIPMENT } from '#core/station/machine.ts';

const svg =
  '<svg width="60mm" height="60mm" viewBox="0 0 60 60" fill="none"><g id="crease" stroke="#00f"><path d="M30 5V55"/></g><g id="outline" stroke="#f00"><rect x="5" y="5" width="50" height="50"/></g></svg>';
const roles = { 'crease|#0000ff': 'crease', 'outline|#ff0000': 'through' } as const;
const values = (force: number, exposureMm: number) => ({
  force,
  exposureMm,
  speed: 100,
  passes: 2,
  offsetMm: 0,
  overcutMm: 0,
});
const machine = {
  ...PLAIN_EQUIPMENT,
  ...samplePlanMachine,
  toolSeats: [
    { name: 'front', holds: 'blade' as const, tool: '' },
    { name: 'back', holds: 'crease' as const, tool: 'ball' },
  ],
  id: 1,
  name: 'Skua',
  bedWidthMm: 300,
  bedLengthMm: 600,
  marginMm: 5,
  forceScale: { kind: 'gramForce' as const, min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 },
  depthScale: { kind: 'dial' as const, mmPerStep: 0.1, maxMm: 1 },
  numbersOwner: 'file' as const,
  language: { id: 'hpgl', options: { unitsPerMm: 40 } },
  link: { kind: 'none' as const },
  version: 1,
  isArchived: false,
};
const material = {
  id: 1,
  name: 'Card',
  maker: 'Oldstrand',
  family: 'foldingCarton' as const,
  finish: '',
  colourName: '',
  colourHex: '#ffffff',
  darkness: 0,
  cautions: ['It sheds dust.'],
  details: { ...NO_DETAILS, fibre: 'long' as const },
  conditions: [],
  version: 1,
  isArchived: false,
};
const condition = {
  id: 1,
  kind: 'bare' as const,
  stack: [{ role: 'body' as const, caliperUm: 400, isMeasured: true }],
};

function compose(
  print = { hasMarks: false, bleedMm: 0, keepsTestCorner: false },
  hasArt = false,
  more: Partial<RunSheetOrder> = {},
) {
  const settings = { crease: values(300, 0), through: values(200, 0.6) };
  const plan = samplePlan(readSvg(svg).contours, roles, settings, { machine });
  const design = sampleDesign(svg, roles, { xMm: 6, yMm: 6 }, { print });
  const job = {
    ...design,
    id: 1,
    name: 'Box',
    areRolesGuessed: false,
    passes: PLAIN_CHOICES,
    conditionId: 1,
    machineId: 1,
    version: 1,
    updatedAt: '',
  };
  const sheet = { material, condition, lot: '', colour: '' };
  return composeRunSheet({
    job,
    station: { machine, blade: null, mat: null, loaded: null },
    sheet,
    parts: splitParts(plan.passes, samplePlanMachine.carries),
    sheetNumber: 1,
    sheetCount: 2,
    hasArt,
    printAfter: hasArt ? 0 : null,
    waits: [],
    assumed: [],
    ...more,
  });
}

describe('composeTestPass', () => {
  it('lays a square for every blade pass in the corner, with its force and passes', () => {
    const settings = { crease: values(300, 0), through: values(200, 0.6) };
    const { passes } = samplePlan(readSvg(svg).contours, roles, settings, { machine });
    const corner = { minX: 100, minY: 20, maxX: 146, maxY: 42 };
    const [test, ...rest] = composeTestPass(passes, corner);
    expect(rest).toEqual([]);
    expect(test!.values.force).toBe(200);
    expect(test!.strokes).toHaveLength(2 * 2);
    for (const { x, y } of test!.strokes.flatMap(({ points }) => points)) {
      expect(x).toBeGreaterThanOrEqual(100);
      expect(x).toBeLessThanOrEqual(146);
      expect(y).toBeGreaterThanOrEqual(20);
      expect(y).toBeLessThanOrEqual(42);
    }
  });
});

describe('a run sheet', () => {
  it('says what to load, set, look at and do, in the order of the work', () => {
    const { title, sections, cautions } = compose();
    expect(title).toBe('Box, sheet 1 of 2');
    expect(sections.map(({ heading }) => heading)).toEqual(['Load', 'Cut', 'Unload', 'Weed', 'Write down']);
    const words = sections[1]!.steps.map((step) => step.words);
    expect(words[0]).toMatch(/exposure by hand/);
    expect(words.findIndex((one) => /^Crease with the back/.test(one))).toBeLessThan(
      words.findIndex((one) => /^Cut through with the front/.test(one)),
    );
    expect(words.at(-1)).toMatch(/Look before unloading/);
    expect(cautions).toContain('It sheds dust.');
  });

  it('has the blade’s exposure set although a crease comes first', () => {
    const step = compose().sections[1]!.steps[0]!;
    expect(step.figures).toEqual([['0.60', 'mm exposure']]);
  });

  it('has a panel of numbered cuts dialled once, before the sheet is loaded, and no stop after that', () => {
    const panel = { ...machine, numbersOwner: 'panel' as const, panelCuts: 4 };
    const settings = { crease: values(300, 0), through: values(200, 0.6) };
    const { passes } = samplePlan(readSvg(svg).contours, roles, settings, { machine });
    const parts = splitParts(passes, { force: false, speed: false }, 4);
    const { sections } = compose(undefined, false, {
      parts,
      station: { machine: panel, blade: null, mat: null, loaded: null },
    });
    const at = (heading: string) => sections.findIndex((section) => section.heading === heading);
    expect(at('Dial once')).toBeGreaterThanOrEqual(0);
    expect(at('Dial once')).toBeLessThan(at('Load'));
    expect(sections[at('Dial once')]!.steps.map(({ words }) => words)).toEqual([
      'Cut 1 of the panel, for the creases: the back seat.',
      'Cut 2 of the panel, for the through cut: the front seat.',
    ]);
    expect(sections[at('Dial once')]!.steps[1]!.figures[0]).toEqual(['200', 'gf']);
    const later = sections.slice(at('Load')).flatMap(({ steps }) => steps);
    expect(later.some(({ words }) => words.includes('Dial'))).toBe(false);
    expect(later.some(({ reason }) => reason.includes('cut 2 of the panel'))).toBe(true);
  });

  it('prints, reads marks and tests in the corner where the job asks for it', () => {
    const { sections } = compose({ hasMarks: true, bleedMm: 1.6, keepsTestCorner: true }, true);
    expect(sections[0]!.heading).toBe('Print');
    const all = sections.flatMap(({ steps }) => steps.map(({ words }) => words)).join('\n');
    expect(all).toMatch(/1\.6 mm over the cut lines/);
    expect(all).toMatch(/Have the machine read the marks/);
    expect(all).toMatch(/test piece in the free corner/);
    expect(all).toMatch(/fibres run along its long edge/);
  });

  const waits = (family: Family, kind: ConditionKind) =>
    usualWaits({ family, condition: kind, isPrinted: true }).map((one) =>
      findWait(one, { family, finish: '' }, {}),
    );
  const headings = (more: Partial<RunSheetOrder>) =>
    compose(undefined, true, more).sections.map(({ heading }) => heading);
  const allWords = (more: Partial<RunSheetOrder>) =>
    compose({ hasMarks: true, bleedMm: 0, keepsTestCorner: false }, true, more)
      .sections.flatMap(({ heading, steps }) =>
        steps.map(({ words, figures }) => `${heading}: ${words} ${figures.join(' ')}`),
      )
      .join('\n');

  it('laminates after the print is dry and before it is loaded, all marks covered (T39)', () => {
    const film = { ...material, family: 'printableVinyl' as const, finish: 'gloss' };
    const more = {
      sheet: { material: film, condition: { ...condition, kind: 'laminated' as const }, lot: '', colour: '' },
      waits: waits('printableVinyl', 'laminated'),
    };
    expect(headings(more)).toEqual([
      'Print',
      'Dry',
      'Laminate',
      'Look at the print',
      'Load',
      'Cut',
      'Unload',
      'Weed',
      'Write down',
    ]);
    expect(allWords(more)).toMatch(/Laminate: Cover every mark whole/);
    expect(allWords(more)).toMatch(/Let the film settle\. 30,min/);
    // A gloss sheet throws light back: the marks are dulled before they are read (T19).
    expect(allWords(more)).toMatch(/Dull every mark[^]*Have the machine read the marks/);
  });

  it('mirrors, rests, masks, presses with its figures, rests again and washes what is pressed on (T40)', () => {
    const details = { ...NO_DETAILS, isMirrored: true, heat: { temperatureC: 155, seconds: 12, note: '' } };
    const film = { ...material, family: 'transferFilm' as const, details };
    const more = {
      sheet: { material: film, condition, lot: '', colour: '' },
      waits: waits('transferFilm', 'bare'),
    };
    expect(headings(more).slice(headings(more).indexOf('Unload'))).toEqual([
      'Unload',
      'Weed',
      'Rest',
      'Mask',
      'Press',
      'Wash',
      'Write down',
    ]);
    expect(allWords(more)).toMatch(/Print: Mirror the print/);
    expect(allWords(more)).toMatch(/Rest: Let the print rest before it is masked\. 1,day/);
    expect(allWords(more)).toMatch(/Mask: Mask the print with weak paper tape/);
    expect(allWords(more)).toMatch(/Press: Press it on\. 155,°C 12,s/);
  });

  it('creases first, prints on the same machine, and then cuts, where that is the route', () => {
    const plan = samplePlan(
      readSvg(svg).contours,
      roles,
      { crease: values(300, 0), through: values(200, 0.6) },
      {
        machine: { ...machine, hasPrinter: true },
        hasPrint: true,
        choices: { ...PLAIN_CHOICES, order: ['crease', 'print', 'through'] },
      },
    );
    const more = {
      parts: splitParts(plan.passes, samplePlanMachine.carries),
      printAfter: plan.printAfter,
    };
    expect(headings(more)).toEqual([
      'Load',
      'Crease, part 1 of 2',
      'Print',
      'Dry',
      'Look at the print',
      'Cut, part 2 of 2',
      'Unload',
      'Weed',
      'Write down',
    ]);
  });

  it('puts tools back that were moved or swapped, so that the next job begins where it thinks it does', () => {
    const one = { ...machine, toolSeats: [{ name: 'holder', holds: 'crease' as const, tool: '' }] };
    const { passes } = samplePlan(
      readSvg(svg).contours,
      roles,
      { crease: values(300, 0), through: values(200, 0.6) },
      { machine: one },
    );
    const more = {
      station: { machine: one, blade: null, mat: null, loaded: null },
      parts: splitParts(passes, samplePlanMachine.carries),
    };
    expect(allWords(more)).toMatch(/Unload: Put the tools back: holder: crease tool/);
    expect(allWords(more)).toMatch(/Take the crease tool out of the holder seat and fit the blade/);
  });

  it('keeps both halves of a stencil', () => {
    const stencil = { ...material, family: 'stencilSheet' as const };
    const more = { sheet: { material: stencil, condition, lot: '', colour: '' } };
    expect(allWords(more)).toMatch(/Keep both halves/);
  });

  it('says how each kind of machine takes its sheet, and where it is loaded to', () => {
    const on = (change: object) =>
      allWords({ station: { machine: { ...machine, ...change }, blade: null, mat: null, loaded: null } });
    expect(on({ kind: 'flatbed' })).toMatch(/Load: Lay the sheet square on the bed/);
    const roll = { kind: 'rollFed', pinchPositions: ['low', 'medium', 'high'], hasSuction: true };
    expect(on(roll)).toMatch(/Load: Pinch rollers at medium/);
    expect(on(roll)).toMatch(/Load: Suction strong/);
    expect(on({ kind: 'matFed', loadTo: 'the wheel on the 5' })).toMatch(
      /Load it to here: the wheel on the 5/,
    );
  });

  it('names what people typed, so that no unit in it is put into another', () => {
    const station = {
      machine: { ...machine, name: 'Bed of 600 mm', loadTo: 'the line at 12 mm' },
      blade: null,
      mat: null,
      loaded: null,
    };
    const { ownWords } = compose({ hasMarks: false, bleedMm: 0, keepsTestCorner: false }, false, { station });
    expect(ownWords).toEqual(expect.arrayContaining(['Bed of 600 mm', 'the line at 12 mm']));
    expect(ownWords).not.toContain('Card');
  });
});
