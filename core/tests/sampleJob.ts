import type { DrawnContour } from '#core/drawing/drawing.ts';
import type { Role } from '#core/drawing/roles/lineRoles.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { PLAIN_PRINT } from '#core/job/job.ts';
import type { JobDesign } from '#core/job/layOutJob.ts';
import type { FileOptions } from '#core/program/cutProgram.ts';
import { PLAIN_CHOICES, type Plan } from '#core/passes/plan.ts';
import { planPasses, type PlanOrder } from '#core/passes/planPasses.ts';
import { PLAIN_LAYOUT } from '#core/sheet/chooseSheet.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';

/** Only for tests: a job whose cut lines lie with its upper left corner at a place. */
export function sampleDesign(
  source: string,
  roles: Readonly<Record<string, Role>>,
  corner: { readonly xMm: number; readonly yMm: number },
  change: Partial<JobDesign> = {},
): JobDesign {
  const [piece] = splitPieces(readSvg(source), { roles, lineRoles: {} }, true);
  if (!piece) throw new Error('the sample has no line');
  const { box } = piece;
  const place = {
    piece: 0,
    sheet: 0,
    xMm: corner.xMm + (box.maxX - box.minX) / 2,
    yMm: corner.yMm + (box.maxY - box.minY) / 2,
    turnDeg: 0,
  };
  return {
    format: 'svg',
    source,
    roles,
    lineRoles: {},
    edits: [],
    sheet: { name: 'A4', widthMm: 210, heightMm: 297, marginMm: 6 },
    layout: { ...PLAIN_LAYOUT, placements: [place] },
    print: PLAIN_PRINT,
    ...change,
  };
}

/** Only for tests: how a plotter's file is written, with its numbers or without. */
export const plotterFile = (carriesNumbers = true): FileOptions => ({
  language: { id: 'hpgl', options: { unitsPerMm: 40 } },
  carries: { force: carriesNumbers, speed: carriesNumbers },
  mmPerSPerUnit: 1,
});

/** Only for tests: a machine that plans ask about. */
export const samplePlanMachine: PlanOrder['machine'] = {
  kind: 'matFed',
  speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
  forceScale: { kind: 'gramForce', min: 10, max: 600, step: 1, gfAtZero: 0, gfPerUnit: 1 },
  accelerationMmPerS2: 2000,
  travelSpeedMmPerS: 300,
  toolSeats: [{ name: 'holder', holds: 'blade', tool: '' }],
  carries: { force: true, speed: true },
  choosesSeats: true,
  perforation: 'drawn',
  hasPrinter: false,
  exposesByHand: true,
};

/** Only for tests: plans lines as they lie. */
export function samplePlan(
  lines: readonly DrawnContour[],
  roles: Readonly<Record<string, Role>>,
  settings: PlanOrder['settings'],
  change: Partial<PlanOrder> = {},
): Plan {
  return planPasses({
    lines,
    given: { roles, lineRoles: {} },
    settings,
    machine: samplePlanMachine,
    sheetHeightMm: 100,
    choices: PLAIN_CHOICES,
    kicks: 0,
    ...change,
  });
}
