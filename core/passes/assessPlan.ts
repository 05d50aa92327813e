import { factsOf } from '#core/stack/families/families.ts';
import { predictSimple } from '#core/dialIn/simpleOrdinal.ts';
import { compareFreeing, PASS_POWER } from '#core/passes/compareFreeing.ts';
import { estimateRisks, type Risk } from '#core/passes/estimateRisks.ts';
import { listPerforated, weakestPiece } from '#core/passes/listPerforated.ts';
import type { Pass, Plan } from '#core/passes/plan.ts';
import type { Holding } from '#core/perforation/holding.ts';
import {
  bestTab,
  fitTabs,
  holdingNow,
  type JudgedTabs,
  listTabs,
  TAB_QUANTITY,
  tabIndex,
  tabSheetOf,
} from '#core/perforation/tabModel.ts';
import { perforationOf } from '#core/setting/derivePerforated.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Operation } from '#core/stack/operation.ts';
import { edgeRisk, type RegistrationError } from '#core/sheet/edgeRisk.ts';
import { isThick } from '#core/station/adviseHold.ts';
import { wearOfMat } from '#core/station/wearOfMat.ts';
import { tackIndex } from '#core/wear/tackIndex.ts';
import type { DrawnEdge } from '#core/sheet/measureEdge.ts';
import { glareOf } from '#core/stack/glare.ts';
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
  readonly judgedTabs: readonly JudgedTabs[];
  readonly bleedMm: number;
  readonly spacingMm: number;
  /** How art meets the outlines; `null` where nothing is printed. */
  readonly edge: DrawnEdge | null;
  readonly isFinestTooFine: boolean;
  /** What may be taken for a mark, in words; `null` without marks. */
  readonly markTroubles: readonly string[] | null;
  /** How far print and cut lie apart on this machine. */
  readonly registration: RegistrationError;
  readonly now: Date;
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
 * @example assessPlan({ plan, station, sheet: station.loaded, values: { through: values }, judgedTabs: [], bleedMm: 1, spacingMm: 2, edge: null, isFinestTooFine: false, markTroubles: null, registration: { meanXMm: 0, meanYMm: 0, sdMm: 0.3, source: 'habit' }, now: new Date(0) }).holding // null
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

function outlookTabs({ plan, station, sheet, judgedTabs }: AssessOrder): TabOutlook | null {
  const pass = plan.passes.find(({ role }) => role === 'perforated');
  if (!pass) return null;
  const { tabLengthMm, cutLengthMm } = perforationOf(pass.values);
  const tabSheet = tabSheetOf(station.machine, sheet, pass.values.force);
  const posterior = fitTabs(judgedTabs, tabSheet);
  const weakest = weakestPiece(listPerforated(pass), tabLengthMm, tabSheet);
  if (!weakest) return null;
  const piece = { ...weakest, tabLengthMm };
  const perimeterMm = weakest.tabs * (tabLengthMm + cutLengthMm);
  const choices = listTabs({ perimeterMm, areaMm2: weakest.areaMm2, cutLengthMm }, tabSheet, posterior);
  return {
    ...holdingNow(piece, tabSheet, posterior),
    steps: TAB_QUANTITY.steps,
    chances: predictSimple(TAB_QUANTITY, posterior, tabIndex(piece, tabSheet)),
    proposedTabMm: bestTab(choices)?.tabLengthMm ?? tabLengthMm,
    judged: judgedTabs.length,
  };
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
    loose: holding && { fallsOut: holding.chances[0] ?? 0, hangs: holding.chances[1] ?? 0 },
    mat:
      machine.kind === 'matFed' && mat
        ? { tack: tackIndex(wearOfMat(mat, order.now)), wanted: factsOf(family).wantedTack[0] }
        : null,
    isThick: isThick(sheet.condition.stack),
    isSlick: factsOf(family).isSlick,
    marks: order.markTroubles && {
      glare: glareOf(sheet.material, sheet.condition),
      troubles: order.markTroubles.length,
    },
    whiteEdge: Math.max(meeting.whiteEdge, meeting.borderLost),
    wornShare: blade ? blade.travelMetres / Math.max(1, blade.lifeMetres) : null,
    speedShare: pass ? speedToMmPerS(pass.values.speed, machine.speedScale) / top : 0,
    isFinestTooFine: order.isFinestTooFine,
    breaksOrder: plan.violations.length > 0,
  });
}
