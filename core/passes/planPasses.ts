import type { DrawnContour } from '#core/drawing/drawing.ts';
import { groupKey, type Role } from '#core/drawing/lineRoles.ts';
import { AppError } from '#core/errors/appError.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';
import { estimateTime } from '#core/passes/estimateTime.ts';
import { extendOvercut } from '#core/passes/extendOvercut.ts';
import { orderContours, type Route } from '#core/passes/orderContours.ts';
import type { SettingValues } from '#core/setting/setting.ts';
import { OPERATIONS, type Operation } from '#core/stack/depthGrade.ts';
import { speedToMmPerS, type SpeedScale } from '#core/units/speedScale.ts';

/** What a plan needs to know of the machine. */
export interface PlanMachine {
  readonly speedScale: SpeedScale;
  readonly accelerationMmPerS2: number;
  readonly travelSpeedMmPerS: number;
}

/** One stroke with the blade down: a contour, or one repeat of it. */
export interface Stroke {
  readonly contourId: number;
  readonly repeat: number;
  readonly points: readonly PointMm[];
}

/** All strokes of one operation with its setting. */
export interface Pass {
  readonly operation: Operation;
  readonly values: SettingValues;
  readonly strokes: readonly Stroke[];
  readonly cutMm: number;
  readonly travelMm: number;
  readonly seconds: number;
  /** What the hands must do before it, or `null` when the machine goes straight on. */
  readonly pauseBefore: string | null;
}

/** A job as the machine will run it. */
export interface Plan {
  readonly passes: readonly Pass[];
  readonly cutMm: number;
  readonly travelMm: number;
  readonly seconds: number;
}

const HOME: PointMm = { x: 0, y: 0 };
/** Lifting and lowering the blade once, seconds. Common practice, no source. */
const LIFT_SECONDS = 0.12;

/**
 * Turns placed lines with roles into passes: kiss before through, so that nothing comes free before its insides are
 * cut; inside before outside within a pass; repeats of a contour directly after it (an open
 * line back the way it came), so that no travel is spent.
 *
 * @param roles role per group key; a line without a role is refused, art is left to the printer
 * @param settings one per operation that the roles ask for
 * @throws AppError `cannotPlan` when a role or a setting is missing or nothing is to be cut
 */
export function planPasses(
  contours: readonly DrawnContour[],
  roles: Readonly<Record<string, Role>>,
  settings: Readonly<Partial<Record<Operation, SettingValues>>>,
  machine: PlanMachine,
): Plan {
  const passes: Pass[] = [];
  let at = HOME;
  for (const operation of OPERATIONS) {
    const lines = contours.filter((line) => requireRole(line, roles) === operation);
    if (lines.length === 0) continue;
    const values = settings[operation];
    if (!values)
      throw new AppError('cannotPlan', `there is no ${operation} setting for this sheet on this machine yet`);
    const pass = planPass(operation, lines, values, machine, at, passes.at(-1)?.values.exposureMm ?? null);
    at = pass.strokes.at(-1)?.points.at(-1) ?? at;
    passes.push(pass);
  }
  if (passes.length === 0)
    throw new AppError('cannotPlan', 'no line has a cutting role; give at least one kiss or through');
  const total = (of: (pass: Pass) => number) => passes.reduce((sum, pass) => sum + of(pass), 0);
  return {
    passes,
    cutMm: total((pass) => pass.cutMm),
    travelMm: total((pass) => pass.travelMm) + distanceMm(at, HOME),
    seconds: total((pass) => pass.seconds) + travelTime(at, HOME, machine),
  };
}

function requireRole(line: DrawnContour, roles: Readonly<Record<string, Role>>): Role {
  const role = roles[groupKey(line)];
  if (!role) throw new AppError('cannotPlan', `line ${line.id + 1} has no role yet`, { contourId: line.id });
  return role;
}

function planPass(
  operation: Operation,
  lines: readonly DrawnContour[],
  values: SettingValues,
  machine: PlanMachine,
  start: PointMm,
  exposureBeforeMm: number | null,
): Pass {
  const routes: readonly Route[] = lines
    .map((line) => ({
      contourId: line.id,
      points: flattenContour(line.contour),
      isClosed: line.contour.isClosed,
    }))
    .filter((route) => route.points.length >= 2);
  const strokes = orderContours(routes, start).flatMap((route) => repeatRoute(route, values));
  const motion = {
    speedMmPerS: speedToMmPerS(values.speed, machine.speedScale),
    accelerationMmPerS2: machine.accelerationMmPerS2,
  };
  let at = start;
  let travelMm = 0;
  let seconds = 0;
  for (const stroke of strokes) {
    const first = stroke.points[0] as PointMm;
    travelMm += distanceMm(at, first);
    seconds += travelTime(at, first, machine) + LIFT_SECONDS + estimateTime(stroke.points, motion);
    at = stroke.points.at(-1) as PointMm;
  }
  const cutMm = strokes.reduce((sum, stroke) => sum + measurePolyline(stroke.points), 0);
  const mustSet = exposureBeforeMm !== null && Math.abs(exposureBeforeMm - values.exposureMm) > 1e-6;
  const pauseBefore = mustSet
    ? `Set the exposure to ${values.exposureMm.toFixed(2)} mm for the ${operation} cut`
    : null;
  return { operation, values, strokes, cutMm, travelMm, seconds, pauseBefore };
}

function repeatRoute(route: Route, values: SettingValues): readonly Stroke[] {
  const points = route.isClosed ? extendOvercut(route.points, values.overcutMm) : route.points;
  const back = route.isClosed ? points : [...points].reverse();
  return Array.from({ length: values.passes }, (_, repeat) => ({
    contourId: route.contourId,
    repeat,
    points: repeat % 2 === 0 ? points : back,
  }));
}

function travelTime(from: PointMm, to: PointMm, machine: PlanMachine): number {
  return estimateTime([from, to], {
    speedMmPerS: machine.travelSpeedMmPerS,
    accelerationMmPerS2: machine.accelerationMmPerS2,
  });
}
