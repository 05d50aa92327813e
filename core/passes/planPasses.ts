import { itemAt } from '#core/collections/itemAt.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import type { DrawnContour } from '#core/drawing/drawing.ts';
import {
  isCutRole,
  OPERATION_OF,
  roleOf,
  type CutRole,
  type GivenRoles,
  type Role,
} from '#core/drawing/roles/lineRoles.ts';
import { AppError } from '#core/errors/appError.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';
import type { Toolpath } from '#core/passes/findInner.ts';
import type { Pass, PassChoices, Plan, PlanMachine } from '#core/passes/plan.ts';
import { freeingValues } from '#core/passes/freeingValues.ts';
import { followSeats, type SeatChoice } from '#core/passes/followSeats.ts';
import { isPassStep, orderSteps } from '#core/passes/routeSteps.ts';
import { planPass, travelSeconds } from '#core/passes/planPass.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Operation } from '#core/stack/operation.ts';

/** Everything a plan is made from. */
export interface PlanOrder {
  /** Lines at their place on the sheet. Roles set by hand go by `sourceId` where there is one. */
  readonly lines: readonly (DrawnContour & { readonly sourceId?: number })[];
  readonly given: GivenRoles;
  readonly settings: Readonly<Partial<Record<Operation, SettingValues>>>;
  readonly machine: PlanMachine;
  readonly sheetHeightMm: number;
  readonly choices: PassChoices;
  /** Whether the sheet is printed. */
  readonly hasPrint?: boolean;
  /** Kicks of the travel search: 0 is quick, more is shorter. */
  readonly kicks: number;
}

/** Hands at a pause: to read, set and look. Common practice, no source. */
const PAUSE_SECONDS = 45;
const SEAT_SECONDS = 4;
/** Above so many lines no kicks are spent: the descent alone takes seconds. */
const MOST_KICKED = 20_000;
/** More kicks than this take longer than anybody waits for a plan. */
const MOST_KICKS = 6000;

/**
 * Turns placed lines with roles into passes: print, crease, score, kiss, slits, then what frees, unless another route
 * was chosen; inside before outside and short ways within a pass; far rows first for what frees on a roll-fed machine;
 * repeats of a contour directly after it (an open line back the way it came), so that no travel is spent.
 *
 * @throws AppError `cannotPlan` when a line has no role, an operation no setting, the machine no tool, or nothing is to
 *   be cut
 * @example plan.passes.map(({ operation }) => operation) // ['kiss', 'through']
 */
export function planPasses(order: PlanOrder): Plan {
  const home: PointMm = { x: 0, y: order.sheetHeightMm };
  const byRole = groupByRole(order);
  const present = [...(order.hasPrint ? (['print'] as const) : []), ...byRole.keys()];
  const { steps, violations } = orderSteps(present, order.choices.order, order.machine.hasPrinter);
  if (byRole.size === 0) {
    throw new AppError('cannotPlan', 'no line has a cutting role; give at least one kiss or through');
  }
  const cuts = steps.filter(isPassStep);
  const seats = followSeats(order.machine.toolSeats, cuts, order.machine.choosesSeats);
  const passes: Pass[] = [];
  let at = home;
  let pauses = 0;
  let printAfter: number | null = null;
  for (const [index, role] of steps.entries()) {
    if (!isPassStep(role)) {
      printAfter = passes.length;
      continue;
    }
    const seat = itemAt(seats, cuts.indexOf(role));
    const pass = planPass({
      ...order,
      role,
      routes: byRole.get(role) as readonly Toolpath[],
      seat,
      start: at,
      end: index === steps.length - 1 ? home : null,
      kicks: kicksFor(order.lines.length, order.kicks),
      ...prepare(order, role, seat, { passes, isPrinted: printAfter === passes.length && passes.length > 0 }),
    });
    if (pass.strokes.length === 0) continue;
    pauses += secondsOfHands(pass, passes.at(-1), seat);
    at = pass.strokes.at(-1)?.points.at(-1) ?? at;
    passes.push(pass);
  }
  const total = (of: (pass: Pass) => number) => passes.reduce((sum, pass) => sum + of(pass), 0);
  return {
    passes,
    cutMm: total((pass) => pass.cutMm),
    travelMm: total((pass) => pass.travelMm) + distanceMm(at, home),
    seconds: total((pass) => pass.seconds) + pauses + travelSeconds(at, home, order.machine),
    violations,
    printAfter,
  };
}

/** What a pass is cut with, and what hands do before it. */
function prepare(
  order: PlanOrder,
  role: CutRole,
  seat: SeatChoice,
  { passes, isPrinted }: { readonly passes: readonly Pass[]; readonly isPrinted: boolean },
) {
  const values = requireValues(order, role);
  const bladeBefore = passes.findLast((pass) => pass.role !== 'crease') ?? null;
  const setsExposure = order.machine.exposesByHand && mustExpose(role, values, bladeBefore, seat);
  const isAsked = passes.length > 0 && (order.choices.pausesBefore ?? []).includes(role);
  const pauseBefore = describePause({ role, values, seat, isPrinted, isAsked, bladeBefore, setsExposure });
  return { values, setsExposure, pauseBefore };
}

/** How long hands take before a pass, or the machine to change its seat. */
function secondsOfHands(pass: Pass, before: Pass | undefined, { seconds }: SeatChoice): number {
  if (pass.pauseBefore) return PAUSE_SECONDS + seconds;
  return before && before.seat !== pass.seat ? SEAT_SECONDS : 0;
}

function groupByRole({ lines, given }: PlanOrder): ReadonlyMap<CutRole, readonly Toolpath[]> {
  const groups = new Map<CutRole, Toolpath[]>();
  for (const line of lines) {
    const role = requireRole(line, given);
    if (!isCutRole(role)) continue;
    const points = flattenContour(line.contour);
    if (points.length < 2) continue;
    const route = { contourId: line.id, points, isClosed: line.contour.isClosed };
    const group = groups.get(role);
    if (group) group.push(route);
    else groups.set(role, [route]);
  }
  return groups;
}

function requireRole(line: PlanOrder['lines'][number], given: GivenRoles): Role {
  const role = roleOf(line, given);
  if (role) return role;
  throw new AppError('cannotPlan', `line ${line.id + 1} has no role yet`, { contourId: line.id });
}

function requireValues(order: PlanOrder, role: CutRole): SettingValues {
  const { choices, settings, machine } = order;
  const values = requireSetting(order, OPERATION_OF[role]);
  if (role === 'through' && choices.freeing) {
    return freeingValues(choices.freeing, values, settings.kiss ?? null, machine.forceScale);
  }
  if (role !== 'perforated') return values;
  return {
    ...values,
    cutLengthMm: choices.cutLengthMm ?? values.cutLengthMm,
    tabLengthMm: choices.tabLengthMm ?? values.tabLengthMm,
  };
}

function requireSetting({ settings }: PlanOrder, operation: Operation): SettingValues {
  const values = settings[operation];
  if (values) return values;
  const message = `there is no ${operation} setting for this sheet on this machine yet`;
  throw new AppError('cannotPlan', message, { operation });
}

/** The blade is exposed for its first pass, where its exposure changes, and where hands put it in anew. */
function mustExpose(
  role: CutRole,
  values: SettingValues,
  before: Pass | null,
  { isBladeFitted }: SeatChoice,
): boolean {
  if (role === 'crease') return false;
  if (before === null || isBladeFitted) return true;
  return Math.abs(before.values.exposureMm - values.exposureMm) > LENGTH_MM;
}

interface PauseOrder {
  readonly role: CutRole;
  readonly values: SettingValues;
  readonly seat: SeatChoice;
  readonly isPrinted: boolean;
  /** Somebody wants a stop here. */
  readonly isAsked: boolean;
  readonly bladeBefore: Pass | null;
  readonly setsExposure: boolean;
}

function describePause({
  role,
  values,
  seat,
  isPrinted,
  isAsked,
  bladeBefore,
  setsExposure,
}: PauseOrder): string | null {
  // What sits in the machine from the start is set before it starts: no pause of its own.
  const isExposedNow = setsExposure && (seat.isBladeFitted || bladeBefore !== null);
  const words = [
    isPrinted ? 'Print the sheet on this machine and let the ink dry' : null,
    seat.change,
    isExposedNow ? `Set the exposure to ${values.exposureMm.toFixed(2)} mm for the ${role} cut` : null,
  ].filter(Boolean);
  if (words.length === 0 && isAsked) return 'Look at what was cut so far';
  return words.join('. ') || null;
}

/** A kick for every line at least, where any are spent: a long way has as many places to shorten. */
function kicksFor(lines: number, kicks: number): number {
  if (kicks === 0 || lines > MOST_KICKED) return 0;
  return Math.min(MOST_KICKS, Math.max(kicks, lines));
}
