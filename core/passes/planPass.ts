import { itemAt } from '#core/collections/itemAt.ts';
import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import { type CutRole, OPERATION_OF } from '#core/drawing/roles/lineRoles.ts';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';
import { compensateOffset } from '#core/passes/compensateOffset.ts';
import { estimateTime } from '#core/passes/estimateTime.ts';
import { extendOvercut } from '#core/passes/extendOvercut.ts';
import type { Toolpath } from '#core/passes/findInner.ts';
import type { SeatChoice } from '#core/passes/followSeats.ts';
import { orderToolpaths } from '#core/passes/orderToolpaths.ts';
import type { OwnTabs, Pass, PassChoices, PassPerforation, PlanMachine, Stroke } from '#core/passes/plan.ts';
import { cutTabs } from '#core/perforation/cutTabs.ts';
import { evenTabs } from '#core/perforation/evenTabs.ts';
import { placeTabs, type PerforationOrder } from '#core/perforation/placeTabs.ts';
import { perforationOf } from '#core/setting/derivePerforated.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';

/** What one pass is made from. */
export interface PassOrder {
  readonly role: CutRole;
  readonly values: SettingValues;
  readonly routes: readonly Toolpath[];
  readonly machine: PlanMachine;
  readonly choices: PassChoices;
  readonly seat: SeatChoice;
  readonly start: PointMm;
  readonly end: PointMm | null;
  readonly pauseBefore: string | null;
  readonly setsExposure: boolean;
  readonly kicks: number;
}

/** A tab shorter than this holds nothing, mm. Common practice, no source. */
const SHORTEST_TAB_MM = 0.2;
/** Lifting and lowering the blade once, seconds. Common practice, no source. */
const LIFT_SECONDS = 0.12;

/** What to look at after a pass, before the sheet is moved. */
export const LOOKS: Readonly<Record<CutRole, string>> = {
  crease: 'Look at the crease lines: pressed in, not cracked.',
  score: 'Look at a score: it folds, the face is not through.',
  kiss: 'Lift a corner with tweezers: the face comes free, the liner is whole. If not, repeat the kiss before the sheet moves.',
  slit: 'Bend the sheet a little: the slits open.',
  perforated:
    'Look at the outlines before unloading: cut through between the tabs, every piece still in. If not through, repeat.',
  through:
    'Look before unloading: the pieces are free. If not, repeat the same path without moving the sheet.',
};

/**
 * Orders the routes of one role and turns them into strokes with their time.
 *
 * @example planPass({ role: 'kiss', values, routes: [{ contourId: 1, points: loop, isClosed: true }], machine, choices: PLAIN_CHOICES, seat: seatChoice, start: { x: 0, y: 0 }, end: null, pauseBefore: null, setsExposure: true, kicks: 0 }).strokes.length // 1
 */
export function planPass(order: PassOrder): Pass {
  const { role, values, machine, seat } = order;
  const isFreeing = role === 'perforated' || role === 'through';
  const ordered = orderToolpaths(order.routes, order.start, {
    isFarFirst: isFreeing && machine.kind === 'rollFed',
    end: order.end,
    kicks: order.kicks,
  });
  const { strokes, perforation } =
    role === 'perforated'
      ? perforate(ordered, order)
      : { strokes: repeatAll(ordered, order), perforation: null };
  const ledStrokes =
    order.choices.compensatesOffset && role !== 'crease'
      ? strokes.map((stroke) => ({ ...stroke, points: compensateOffset(stroke.points, values.offsetMm) }))
      : strokes;
  return {
    role,
    operation: OPERATION_OF[role],
    values,
    strokes: ledStrokes,
    ...measureStrokes(ledStrokes, order),
    seat: seat.seat,
    seatName: seat.name,
    fitted: seat.fitted,
    setsExposure: order.setsExposure,
    perforation,
    pauseBefore: order.pauseBefore,
    lookAfter: LOOKS[role],
  };
}

/**
 * Seconds of a way with the tool up.
 *
 * @example travelSeconds({ x: 0, y: 0 }, { x: 0, y: 0 }, machine) // 0
 */
export function travelSeconds(from: PointMm, to: PointMm, machine: PlanMachine): number {
  return estimateTime([from, to], {
    speedMmPerS: machine.travelSpeedMmPerS,
    accelerationMmPerS2: machine.accelerationMmPerS2,
  });
}

/**
 * Length cut, length travelled with the tool up, mm, and seconds of strokes in their order.
 *
 * @example measureStrokes([], { values, machine, start: { x: 0, y: 0 } }).cutMm // 0
 */
export function measureStrokes(
  strokes: readonly Stroke[],
  { values, machine, start }: Pick<PassOrder, 'values' | 'machine' | 'start'>,
) {
  const motion = {
    speedMmPerS: speedToMmPerS(values.speed, machine.speedScale),
    accelerationMmPerS2: machine.accelerationMmPerS2,
  };
  let at = start;
  let cutMm = 0;
  let travelMm = 0;
  let seconds = 0;
  for (const stroke of strokes) {
    const first = itemAt(stroke.points, 0);
    const gap = distanceMm(at, first);
    travelMm += gap;
    if (gap > LENGTH_MM) seconds += travelSeconds(at, first, machine) + LIFT_SECONDS;
    seconds += estimateTime(stroke.points, motion);
    cutMm += measurePolyline(stroke.points);
    at = stroke.points.at(-1) as PointMm;
  }
  return { cutMm, travelMm, seconds };
}

function repeatAll(routes: readonly Toolpath[], { values }: PassOrder): readonly Stroke[] {
  return routes.flatMap((route) => {
    const points = route.isClosed ? extendOvercut(route.points, values.overcutMm) : route.points;
    const back = route.isClosed ? points : [...points].reverse();
    return Array.from({ length: values.passes }, (_, repeat) => ({
      contourId: route.contourId,
      repeat,
      points: repeat % 2 === 0 ? points : back,
      isTab: false,
    }));
  });
}

function perforate(
  routes: readonly Toolpath[],
  { values, machine, choices }: PassOrder,
): { readonly strokes: readonly Stroke[]; readonly perforation: PassPerforation } {
  let tabs = 0;
  let moved = 0;
  const kissOnly: { contourId: number; reason: string }[] = [];
  // Without a kiss force, or where no file may change the force, the tool is lifted over the tabs.
  const canPress = machine.carries.force && values.tabForce !== undefined;
  const asked = {
    ...perforationOf(values),
    leading: machine.kind === 'rollFed' ? ('bottom' as const) : null,
    thumb: null,
  };
  const strokes = routes.flatMap(({ contourId, points, isClosed }): readonly Stroke[] => {
    const whole = (isTab: boolean): readonly Stroke[] => [{ contourId, repeat: 0, points, isTab }];
    if (!isClosed) return whole(false);
    const placed = placeTabs(points, canPress ? asked : shortenTabs(asked, points));
    if (placed.kind === 'kissOnly') {
      const reason = canPress ? placed.reason : `${placed.reason}: it is left uncut`;
      kissOnly.push({ contourId, reason });
      return canPress ? whole(true) : [];
    }
    if (choices.perforatesNatively && machine.perforation === 'native') {
      const { tabs: even, startMm } = evenTabs(placed);
      tabs += even.length;
      const stretches = cutTabs(points, even, startMm, 0);
      const ownTabs = ownTabsOf(stretches, even, placed.lengthMm);
      const outline = stretches.flatMap((stretch, index) =>
        index === 0 ? stretch.points : stretch.points.slice(1),
      );
      return Array.from({ length: values.passes }, (_, repeat) => ({
        contourId,
        repeat,
        points: outline,
        isTab: false,
        ownTabs,
      }));
    }
    tabs += placed.tabs.length;
    moved += placed.moved;
    const stretches = cutTabs(points, placed.tabs, placed.startMm, values.overcutMm).filter(
      ({ isTab }) => !isTab || canPress,
    );
    return Array.from({ length: values.passes }, (_, repeat) =>
      stretches.map((stretch) => ({ contourId, repeat, ...stretch })),
    ).flat();
  });
  return { strokes, perforation: { tabs, moved, kissOnly } };
}

/** Where a small outline cannot be kissed instead, its tabs are made short enough for two of them. */
function shortenTabs(asked: PerforationOrder, ring: readonly PointMm[]): PerforationOrder {
  const roomMm = (measurePolyline(ring) / 2 - 1) / 2;
  return { ...asked, tabLengthMm: Math.min(asked.tabLengthMm, Math.max(SHORTEST_TAB_MM, roomMm)) };
}

function ownTabsOf(
  stretches: NonNullable<OwnTabs['stretches']>,
  tabs: readonly { readonly fromMm: number; readonly toMm: number }[],
  lengthMm: number,
): OwnTabs {
  const tabLengthMm = tabs[0] ? tabs[0].toMm - tabs[0].fromMm : 0;
  return { tabLengthMm, cutLengthMm: lengthMm / Math.max(1, tabs.length) - tabLengthMm, stretches };
}
