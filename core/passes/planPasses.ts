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
import { findSeat } from '#core/passes/findSeat.ts';
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
const MOST_KICKED = 1500;

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
  const passes: Pass[] = [];
  let at = home;
  let pauses = 0;
  let printAfter: number | null = null;
  for (const [index, role] of steps.entries()) {
    if (!isPassStep(role)) {
      printAfter = passes.length;
      continue;
    }
    const values = requireValues(order, role);
    const before = passes.at(-1) ?? null;
    const bladeBefore = passes.findLast((pass) => pass.role !== 'crease') ?? null;
    const seat = findSeat(order.machine.toolSeats, role);
    const isPrinted = printAfter === passes.length && passes.length > 0;
    const byHand = !order.machine.choosesSeats && seat.seat !== (before?.seat ?? 1);
    const change = seat.change ?? (byHand ? `Change to the tool in the ${seat.name} seat` : null);
    const pauseBefore = describePause(role, values, bladeBefore, change, isPrinted);
    const pass = planPass({
      ...order,
      role,
      values,
      routes: byRole.get(role) as readonly Toolpath[],
      seat,
      start: at,
      end: index === steps.length - 1 ? home : null,
      pauseBefore,
      kicks: order.lines.length > MOST_KICKED ? 0 : order.kicks,
    });
    if (pass.strokes.length === 0) continue;
    pauses += pauseBefore ? PAUSE_SECONDS : before && before.seat !== pass.seat ? SEAT_SECONDS : 0;
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

function requireValues({ settings, choices }: PlanOrder, role: CutRole): SettingValues {
  const operation = OPERATION_OF[role];
  const values = settings[operation];
  if (!values) {
    throw new AppError('cannotPlan', `there is no ${operation} setting for this sheet on this machine yet`, {
      operation,
    });
  }
  if (role !== 'perforated') return values;
  return {
    ...values,
    cutLengthMm: choices.cutLengthMm ?? values.cutLengthMm,
    tabLengthMm: choices.tabLengthMm ?? values.tabLengthMm,
  };
}

function describePause(
  role: CutRole,
  values: SettingValues,
  before: Pass | null,
  change: string | null,
  isPrinted: boolean,
): string | null {
  const mustExpose =
    role !== 'crease' &&
    before !== null &&
    Math.abs(before.values.exposureMm - values.exposureMm) > LENGTH_MM;
  const words = [
    isPrinted ? 'Print the sheet on this machine and let the ink dry' : null,
    change,
    mustExpose ? `Set the exposure to ${values.exposureMm.toFixed(2)} mm for the ${role} cut` : null,
  ];
  return words.filter(Boolean).join('. ') || null;
}
