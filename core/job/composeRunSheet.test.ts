import { describe, expect, it } from 'vitest';
import { composeTestPass } from '#core/job/composeTestPass.ts';
import { composeRunSheet } from '#core/job/composeRunSheet.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { splitParts } from '#core/passes/splitParts.ts';
import { sampleDesign, samplePlan, samplePlanMachine } from '#core/tests/sampleJob.ts';
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

function compose(print = { hasMarks: false, bleedMm: 0, keepsTestCorner: false }, hasArt = false) {
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
    assumed: [],
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
    expect(sections.map(({ heading }) => heading)).toEqual(['Load', 'Cut', 'Unload']);
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

  it('prints, reads marks and tests in the corner where the job asks for it', () => {
    const { sections } = compose({ hasMarks: true, bleedMm: 1.6, keepsTestCorner: true }, true);
    expect(sections[0]!.heading).toBe('Print');
    const all = sections.flatMap(({ steps }) => steps.map(({ words }) => words)).join('\n');
    expect(all).toMatch(/1\.6 mm over the cut lines/);
    expect(all).toMatch(/Have the machine read the marks/);
    expect(all).toMatch(/test piece in the free corner/);
    expect(all).toMatch(/fibres run along its long edge/);
  });
});
