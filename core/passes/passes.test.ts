import { describe, expect, it } from 'vitest';
import { distanceToWay } from '#core/geometry/distanceToWay.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { compareFreeing, type FreeingOrder } from '#core/passes/compareFreeing.ts';
import { compensateOffset } from '#core/passes/compensateOffset.ts';
import { estimateRisks, type RiskOrder } from '#core/passes/estimateRisks.ts';
import { orderSteps, PASS_ROUTES } from '#core/passes/routeSteps.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { splitParts } from '#core/passes/splitParts.ts';
import { derivePerforated } from '#core/setting/derivePerforated.ts';
import { plotterFile, samplePlan, samplePlanMachine } from '#core/tests/sampleJob.ts';
import { writeMachineFile } from '#core/protocol/machineFile.ts';

const values = (force: number, exposureMm = 0.4) => ({
  force,
  exposureMm,
  speed: 100,
  passes: 1,
  offsetMm: 0.25,
  overcutMm: 0.5,
});
const sticker = readSvg(`<svg width="100mm" height="100mm" viewBox="0 0 100 100" fill="none">
  <rect stroke="#ff0000" x="10" y="10" width="60" height="40"/><circle stroke="#0000ff" cx="40" cy="30" r="12"/></svg>`).contours;
const roles = { '|#ff0000': 'perforated', '|#0000ff': 'kiss' } as const;
const kiss = values(60);
const settings = { kiss, perforated: derivePerforated(values(180), kiss) };
const roll = { ...samplePlanMachine, kind: 'rollFed' as const };

describe('a perforated pass', () => {
  const plan = samplePlan(sticker, roles, settings, { machine: roll });
  const perforated = plan.passes[1]!;

  it('cuts with the through force and presses tabs with the kiss force (T5), without a lift between', () => {
    expect(perforated.values).toMatchObject({ force: 180, tabForce: 60 });
    expect(perforated.strokes.filter(({ isTab }) => isTab)).toHaveLength(perforated.perforation!.tabs);
    const hpgl = writeMachineFile([perforated], 100, plotterFile());
    expect(hpgl.match(/PU/g)).toHaveLength(2);
    expect(hpgl.match(/FS60/g)).toHaveLength(perforated.perforation!.tabs);
  });

  it('lifts over the tabs where the panel owns the force', () => {
    const lifted = samplePlan(sticker, roles, settings, {
      machine: { ...roll, carries: { force: false, speed: false } },
    });
    expect(lifted.passes[1]!.strokes.some(({ isTab }) => isTab)).toBe(false);
    const text = writeMachineFile([lifted.passes[1]!], 100, plotterFile(false));
    expect(text.match(/PD/g)!.length).toBe(lifted.passes[1]!.perforation!.tabs + 1);
    expect(text).not.toMatch(/FS/);
  });

  it('only kisses outlines with no room for tabs, and says which', () => {
    const dot = readSvg(
      '<svg width="9mm" height="9mm" viewBox="0 0 9 9" fill="none"><circle stroke="#f00" cx="4" cy="4" r="0.5"/></svg>',
    ).contours;
    const tiny = samplePlan(dot, roles, settings, { machine: roll }).passes[0]!;
    expect(tiny.perforation!.kissOnly).toHaveLength(1);
    expect(tiny.strokes.every(({ isTab }) => isTab)).toBe(true);
  });

  it('leaves the tabs to a machine that makes them itself: whole outlines, the same picture', () => {
    const native = samplePlan(sticker, roles, settings, {
      machine: { ...roll, perforation: 'native' },
      choices: { ...PLAIN_CHOICES, perforatesNatively: true },
    }).passes[1]!;
    expect(native.strokes).toHaveLength(1);
    const { stretches = [], cutLengthMm, tabLengthMm } = native.strokes[0]!.ownTabs!;
    const tabs = stretches.filter(({ isTab }) => isTab);
    expect(tabs).toHaveLength(native.perforation!.tabs);
    // A whole number of periods on the 200 mm around.
    expect((cutLengthMm + tabLengthMm) * tabs.length).toBeCloseTo(200, 6);
    const text = writeMachineFile([native], 100, plotterFile());
    const period = Number(/LT1,([\d.]+),1;/.exec(text)![1]);
    expect(period).toBeCloseTo(cutLengthMm + tabLengthMm, 3);
    expect(text).toMatch(/LT;\n/);
    expect(text.match(/PD/g)).toHaveLength(1);
    // Where the panel owns the numbers, no pattern is written either.
    expect(writeMachineFile([native], 100, plotterFile(false))).not.toMatch(/LT|UL/);
    // A machine that cannot is given drawn tabs, whatever was chosen.
    const drawn = samplePlan(sticker, roles, settings, {
      machine: { ...roll, perforation: 'drawn' },
      choices: { ...PLAIN_CHOICES, perforatesNatively: true },
    }).passes[1]!;
    expect(drawn.strokes.length).toBeGreaterThan(10);
  });

  it('takes lengths chosen for the job over those of the setting', () => {
    const choices = { order: null, cutLengthMm: 5, tabLengthMm: 0.5, compensatesOffset: false };
    const finer = samplePlan(sticker, roles, settings, { machine: roll, choices }).passes[1]!;
    expect(finer.perforation!.tabs).toBeGreaterThan(perforated.perforation!.tabs * 2);
  });
});

describe('orderSteps', () => {
  it('creases first and frees last, whatever order they were found in', () => {
    expect(orderSteps(['through', 'kiss', 'slit', 'crease', 'score'], null, false)).toEqual({
      steps: ['crease', 'score', 'kiss', 'slit', 'through'],
      violations: [],
    });
  });

  it('takes another order and says what it breaks', () => {
    const { steps, violations } = orderSteps(['kiss', 'through'], ['through'], false);
    expect(steps).toEqual(['through', 'kiss']);
    expect(violations).toEqual(['through before kiss: a piece that is free cannot be kissed']);
  });

  it('prints before anything else, or after the crease only on a machine that prints as well', () => {
    const present = ['print', 'crease', 'slit', 'through'] as const;
    expect(orderSteps(present, null, false).steps[0]).toBe('print');
    const creaseFirst = PASS_ROUTES.find(({ needsPrinter }) => needsPrinter)!.steps;
    const alone = orderSteps(present, creaseFirst, false);
    expect(alone.steps).toEqual(['crease', 'print', 'slit', 'through']);
    expect(alone.violations).toEqual([expect.stringMatching(/^crease before print: a creased sheet/)]);
    expect(orderSteps(present, creaseFirst, true).violations).toEqual([]);
    expect(orderSteps(present, ['slit', 'print'], true).violations).toContainEqual(
      expect.stringMatching(/^slit before print: cut edges lift/),
    );
    // An order kept before anything was printed does not name it.
    expect(orderSteps(present, ['through', 'crease'], false).steps[0]).toBe('print');
  });

  it('stops between passes to print where the route says so', () => {
    const planned = samplePlan(sticker, roles, settings, {
      machine: { ...roll, hasPrinter: true },
      choices: { ...PLAIN_CHOICES, order: ['kiss', 'print', 'perforated'] },
      hasPrint: true,
    });
    expect(planned.printAfter).toBe(1);
    expect(planned.passes[0]!.pauseBefore).toBeNull();
    expect(planned.passes[1]!.pauseBefore).toMatch(/^Print the sheet on this machine/);
  });
});

describe('seats and parts', () => {
  it('keeps the blade’s exposure in a part that begins with a crease', () => {
    const crease = { ...values(300, 0), passes: 1 };
    const folded = readSvg(
      '<svg width="60mm" height="60mm" viewBox="0 0 60 60" fill="none"><path stroke="#00f" d="M30 5V55"/><rect stroke="#f00" x="5" y="5" width="50" height="50"/></svg>',
    ).contours;
    const machine = {
      ...samplePlanMachine,
      toolSeats: [
        { name: 'front', holds: 'blade' as const, tool: '' },
        { name: 'back', holds: 'crease' as const, tool: '' },
      ],
    };
    const given = { '|#0000ff': 'crease', '|#ff0000': 'through' } as const;
    const { passes } = samplePlan(folded, given, { crease, through: values(200, 0.6) }, { machine });
    expect(passes.map(({ seat }) => seat)).toEqual([2, 1]);
    expect(splitParts(passes, samplePlanMachine.carries)).toMatchObject([{ exposureMm: 0.6, before: null }]);
    expect(writeMachineFile(passes, 60, plotterFile())).toMatch(/^IN;PA;SP2;[\s\S]*PU;SP1;/);
  });
});

describe('compareFreeing', () => {
  const order: FreeingOrder = {
    kissGf: 100,
    throughGf: 180,
    isRollFed: false,
    isLayered: true,
    isFibrous: false,
    outlineMm: 500,
    passSeconds: 10,
    tabLengthMm: 1,
    cutLengthMm: 10,
    mostGf: 500,
  };
  const of = (way: string, change: Partial<FreeingOrder> = {}) =>
    compareFreeing({ ...order, ...change }).options.find((option) => option.way === way)!;

  it('frees by five kiss passes what takes 1.8 times the kiss force at once (common practice, no source: T17)', () => {
    expect(of('kissRepeats').passes).toBe(5);
  });

  it('perforates on a roll, cuts card in light passes, and one pass on a mat', () => {
    expect(compareFreeing({ ...order, isRollFed: true }).pick).toBe('perforated');
    expect(compareFreeing({ ...order, kissGf: null, isLayered: false, isFibrous: true }).pick).toBe(
      'severalLight',
    );
    expect(compareFreeing({ ...order, kissGf: 30 }).pick).toBe('oneHeavy');
  });

  it('bars what cannot be, in words', () => {
    expect(of('kissRepeats', { kissGf: 20 }).bar).toMatch(/it would take \d+ passes/);
    expect(of('oneHeavy', { mostGf: 150 }).bar).toMatch(/it takes 180 gf; the machine gives 150/);
    expect(of('perforated').jamRisk).toBeLessThan(of('oneHeavy').jamRisk / 5);
  });
});

describe('estimateRisks', () => {
  const calm: RiskOrder = {
    isRollFed: false,
    isFibrous: false,
    throughOutlines: 0,
    loose: null,
    mat: { tack: 60, wanted: 45 },
    isSlick: false,
    isThick: false,
    marks: null,
    whiteEdge: 0,
    wornShare: 0.2,
    speedShare: 0.2,
    isFinestTooFine: false,
    breaksOrder: false,
  };
  const chance = (kind: string, change: Partial<RiskOrder>) =>
    estimateRisks({ ...calm, ...change }).find((risk) => risk.kind === kind)!;

  it('sees nothing on a calm job, and names the cause of what it sees', () => {
    expect(estimateRisks(calm).every((risk) => risk.chance === 0)).toBe(true);
    expect(chance('jam', { isRollFed: true, throughOutlines: 3 }).causes[0]!.words).toMatch(/fall out/);
    const weak = chance('matSlip', { mat: { tack: 30, wanted: 45 } });
    expect(weak.causes[0]!.words).toBe('a mat that holds 30 where this sheet wants 45');
    expect(weak.chance).toBeGreaterThan(chance('matSlip', { mat: { tack: 44, wanted: 45 } }).chance);
    // A sheet slips under rollers too, and no mat is at fault there.
    expect(chance('matSlip', { isRollFed: true, mat: null, isSlick: true }).causes[0]!.words).toMatch(
      /rollers/,
    );
    expect(chance('tear', { wornShare: 0.97 }).causes[0]!.words).toMatch(/blade near its end/);
  });

  it('adds causes as if each struck by itself: 1 - (1 - a)(1 - b)', () => {
    const both = chance('jam', { isRollFed: true, throughOutlines: 1 });
    const spared = both.causes.reduce((left, one) => left * (1 - one.chance), 1);
    expect(both.chance).toBeCloseTo(1 - spared, 12);
  });

  it('sees marks that will not be read: on what shines, beside dark art; nowhere without marks', () => {
    const of = (marks: RiskOrder['marks']) =>
      estimateRisks({ ...calm, marks }).find(({ kind }) => kind === 'marks')!.chance;
    expect(of(null)).toBe(0);
    expect(of({ glare: 0, troubles: 0 })).toBe(0);
    expect(of({ glare: 0.6, troubles: 0 })).toBeGreaterThan(0.1);
    expect(of({ glare: 1, troubles: 2 })).toBeGreaterThan(of({ glare: 1, troubles: 0 }));
  });

  it('jams less the better tabs hold', () => {
    const jams = (fallsOut: number) =>
      chance('jam', { isRollFed: true, loose: { fallsOut, hangs: 0.1 } }).chance;
    expect(jams(0.01)).toBeLessThan(jams(0.3));
  });
});

describe('compensateOffset', () => {
  const corner = [
    { x: 0, y: 0 },
    { x: 10, y: 0 },
    { x: 10, y: 10 },
  ];

  it('leads by the offset along a line and swings around a corner on a circle of that radius', () => {
    const way = compensateOffset(corner, 0.5);
    expect(way[0]).toEqual({ x: 0.5, y: 0 });
    expect(way.at(-1)!.y).toBeCloseTo(10.5, 12);
    const swing = way.slice(2, -2);
    expect(swing.length).toBeGreaterThan(3);
    for (const point of swing) expect(Math.hypot(point.x - 10, point.y)).toBeCloseTo(0.5, 12);
  });

  it('has a trailing tip follow the corner (tractrix, stepped; 0.02 mm)', () => {
    const offset = 0.5;
    const way = compensateOffset(corner, offset);
    let tip = { x: 0, y: 0 };
    let furthest = 0;
    for (let index = 1; index < way.length; index++) {
      const [from, to] = [way[index - 1]!, way[index]!];
      for (let step = 1; step <= 200; step++) {
        const axis = {
          x: from.x + ((to.x - from.x) * step) / 200,
          y: from.y + ((to.y - from.y) * step) / 200,
        };
        const length = Math.hypot(axis.x - tip.x, axis.y - tip.y);
        tip = {
          x: axis.x + ((tip.x - axis.x) * offset) / length,
          y: axis.y + ((tip.y - axis.y) * offset) / length,
        };
        furthest = Math.max(furthest, distanceToWay(tip, corner));
      }
    }
    expect(furthest).toBeLessThan(0.02);
    expect(Math.hypot(tip.x - 10, tip.y - 10)).toBeLessThan(0.02);
  });

  it('leaves a line alone without an offset, and gentle curves without swings', () => {
    expect(compensateOffset(corner, 0)).toBe(corner);
    const gentle = [
      { x: 0, y: 0 },
      { x: 10, y: 0 },
      { x: 20, y: 1 },
    ];
    expect(compensateOffset(gentle, 0.25)).toHaveLength(3);
  });
});
