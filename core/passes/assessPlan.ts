import { itemAt } from '#core/collections/itemAt.ts';
import { factsOf } from '#core/stack/families/families.ts';
import { holdIndex, TAB_QUANTITY, tabForHold } from '#core/dialIn/quantities.ts';
import { fitSimple, predictSimple, type SimpleTrial } from '#core/dialIn/simpleOrdinal.ts';
import { signedAreaMm2 } from '#core/geometry/polygon.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { compareFreeing, PASS_POWER } from '#core/passes/compareFreeing.ts';
import { estimateRisks, type Risk } from '#core/passes/estimateRisks.ts';
import type { Pass, Plan } from '#core/passes/plan.ts';
import { estimateHolding, grammageOf, uncutOf, type Holding } from '#core/perforation/holding.ts';
import { perforationOf } from '#core/setting/derivePerforated.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Operation } from '#core/stack/operation.ts';
import { edgeRisk, type RegistrationError } from '#core/sheet/edgeRisk.ts';
import type { DrawnEdge } from '#core/sheet/measureEdge.ts';
import { hasLiner } from '#core/stack/layer.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import { forceToGf, gfOf } from '#core/units/forceScale.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';

/** What a plan is judged from beside itself. */
export interface AssessOrder {
  readonly plan: Plan;
  readonly station: Pick<Station, 'machine' | 'blade' | 'mat'>;
  readonly sheet: LoadedSheet;
  readonly values: Readonly<Partial<Record<Operation, SettingValues>>>;
  /** How perforated pieces of this sheet held on this machine. */
  readonly tabTrials: readonly SimpleTrial[];
  readonly bleedMm: number;
  readonly spacingMm: number;
  /** How art meets the outlines; `null` where nothing is printed. */
  readonly edge: DrawnEdge | null;
  readonly isFinestTooFine: boolean;
  /** How far print and cut lie apart on this machine. */
  readonly registration: RegistrationError;
}

/** How the perforation will hold: forces of the weakest piece, and what operators would report. */
export interface TabOutlook extends Holding {
  /** fell out, loose, right, hard to pop, tore. */
  readonly steps: readonly string[];
  readonly chances: readonly number[];
  /** The tab length most likely to be right at this cut length, mm. */
  readonly proposedTabMm: number;
  /** Pieces judged on this sheet and machine. */
  readonly judged: number;
}

/**
 * Judges a plan: ways to free the pieces, how tabs will hold, what can go wrong.
 *
 * @example assessPlan({ plan, station, sheet: station.loaded, values: { through: values }, tabTrials: [], bleedMm: 1, spacingMm: 2, edge: null, isFinestTooFine: false, registration: { meanXMm: 0, meanYMm: 0, sdMm: 0.3, source: 'habit' } }).holding // null
 */
export function assessPlan(order: AssessOrder) {
  const holding = outlookTabs(order);
  return { freeing: weighFreeing(order), holding, risks: weighRisks(order, holding) };
}

function freeingPass({ passes }: Plan): Pass | null {
  return passes.find(({ role }) => role === 'perforated' || role === 'through') ?? null;
}

function weighFreeing({ plan, station, sheet, values }: AssessOrder) {
  const pass = freeingPass(plan);
  const { through, kiss, perforated } = values;
  if (!pass || !through) return null;
  const { forceScale, kind } = station.machine;
  const { family } = sheet.material;
  return compareFreeing({
    kissGf: kiss ? gfOf(kiss.force, forceScale) : null,
    throughGf: gfOf(through.force, forceScale) * through.passes ** PASS_POWER,
    isRollFed: kind === 'rollFed',
    isLayered: hasLiner(sheet.condition.stack),
    isFibrous: factsOf(family).isFibrous,
    outlineMm: pass.cutMm / pass.values.passes,
    passSeconds: pass.seconds / pass.values.passes,
    ...perforationOf(perforated ?? {}),
    mostGf: forceToGf(forceScale.max, forceScale),
  });
}

function outlookTabs({ plan, station, sheet, tabTrials }: AssessOrder): TabOutlook | null {
  const pass = plan.passes.find(({ role }) => role === 'perforated');
  if (!pass) return null;
  const { tabLengthMm, cutLengthMm } = perforationOf(pass.values);
  const { stack } = sheet.condition;
  const pieces = listPieces(pass);
  const shared = {
    ...uncutOf(stack, sheet.material.family),
    tabLengthMm,
    grammageGPerM2: grammageOf(stack),
    cutForceGf: gfOf(pass.values.force, station.machine.forceScale),
    accelerationMmPerS2: station.machine.accelerationMmPerS2,
  };
  const weakest = pieces
    .map((piece) => estimateHolding({ ...shared, ...piece }))
    .sort((a, b) => a.holdIndex - b.holdIndex)[0];
  if (!weakest) return null;
  const posterior = fitSimple(TAB_QUANTITY, tabTrials);
  const chances = predictSimple(TAB_QUANTITY, posterior, holdIndex(tabLengthMm, cutLengthMm));
  const middle = posterior.grid.reduce((sum, at, index) => sum + at * itemAt(posterior.weights, index), 0);
  const proposed = tabForHold(middle, cutLengthMm);
  return {
    ...weakest,
    steps: TAB_QUANTITY.steps,
    chances,
    proposedTabMm: Math.max(0.3, Math.round(proposed * 10) / 10),
    judged: tabTrials.length,
  };
}

/** Tabs and area of every perforated piece. */
function listPieces({ strokes }: Pass): readonly { readonly tabs: number; readonly areaMm2: number }[] {
  const pieces = new Map<number, { tabs: number; points: PointMm[] }>();
  for (const { contourId, repeat, points, isTab, ownTabs } of strokes) {
    if (repeat > 0) continue;
    const piece = pieces.get(contourId) ?? { tabs: 0, points: [] };
    if (isTab) piece.tabs++;
    piece.tabs += ownTabs?.stretches?.filter((stretch) => stretch.isTab).length ?? 0;
    piece.points.push(...points);
    pieces.set(contourId, piece);
  }
  return [...pieces.values()]
    .filter(({ tabs }) => tabs > 0)
    .map(({ tabs, points }) => ({ tabs, areaMm2: Math.abs(signedAreaMm2(points)) }));
}

function weighRisks(order: AssessOrder, holding: TabOutlook | null): readonly Risk[] {
  const { plan, station, sheet } = order;
  const { machine, blade, mat } = station;
  const { family } = sheet.material;
  const pass = freeingPass(plan);
  const through = plan.passes.find(({ role }) => role === 'through');
  const { edge } = order;
  const meeting = edgeRisk({
    error: order.registration,
    bleedMm: Math.max(order.bleedMm, edge?.drawnBleedMm ?? 0),
    borderMm: edge?.borderMm ?? 0,
    spacingMm: order.spacingMm,
    isSheetColoured: edge === null,
  });
  const top = speedToMmPerS(machine.speedScale.max, machine.speedScale);
  return estimateRisks({
    isRollFed: machine.kind === 'rollFed',
    isFibrous: factsOf(family).isFibrous,
    throughOutlines: through ? new Set(through.strokes.map(({ contourId }) => contourId)).size : 0,
    holdIndex: holding?.holdIndex ?? null,
    matUses: machine.kind === 'matFed' ? (mat?.uses ?? null) : null,
    isSlick: factsOf(family).isSlick,
    whiteEdge: Math.max(meeting.whiteEdge, meeting.borderLost),
    wornShare: blade ? blade.travelMetres / Math.max(1, blade.lifeMetres) : null,
    speedShare: pass ? speedToMmPerS(pass.values.speed, machine.speedScale) / top : 0,
    isFinestTooFine: order.isFinestTooFine,
    breaksOrder: plan.violations.length > 0,
  });
}
