import { boundPoints, type BoxMm } from '#core/geometry/box.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';
import { isInside, signedAreaMm2 } from '#core/geometry/polygon.ts';

/** A line to be drawn as a polyline; a closed one ends on its first point and may start at any vertex. */
export interface Route {
  readonly contourId: number;
  readonly points: readonly PointMm[];
  readonly isClosed: boolean;
}

/**
 * Orders routes so that what lies inside another is drawn before it, and the way between them is short: from where
 * the head is, the nearest line whose insides are done, entered at its nearest vertex (or nearer end).
 *
 * @param start where the head stands before
 * @returns every route once, closed ones turned to their entry, open ones reversed where that is nearer
 */
export function orderContours(routes: readonly Route[], start: PointMm): readonly Route[] {
  const waitsFor = countInner(routes);
  const left = new Set(routes.keys());
  const ordered: Route[] = [];
  let at = start;
  while (left.size > 0) {
    const next = pickNearest(routes, left, waitsFor, at);
    left.delete(next.index);
    for (const outer of waitsFor.outersOf[next.index] as readonly number[]) {
      waitsFor.open[outer] = (waitsFor.open[outer] as number) - 1;
    }
    const entered = enterAt(routes[next.index] as Route, next.vertex);
    ordered.push(entered);
    at = entered.points.at(-1) as PointMm;
  }
  return ordered;
}

interface Containment {
  /** How many lines inside each line are not drawn yet. */
  readonly open: number[];
  /** Which lines lie around each line. */
  readonly outersOf: readonly (readonly number[])[];
}

function countInner(routes: readonly Route[]): Containment {
  const boxes = routes.map((route) => boundPoints(route.points));
  const areas = routes.map((route) => (route.isClosed ? Math.abs(signedAreaMm2(route.points)) : 0));
  const open = routes.map(() => 0);
  const outersOf = routes.map((inner, index) =>
    [...routes.keys()].filter((outer) => {
      if (outer === index || !(routes[outer] as Route).isClosed) return false;
      if ((areas[outer] as number) <= (areas[index] as number)) return false;
      if (!encloses(boxes[outer] as BoxMm, boxes[index] as BoxMm)) return false;
      return isInside(inner.points[0] as PointMm, (routes[outer] as Route).points);
    }),
  );
  for (const outers of outersOf) for (const outer of outers) open[outer] = (open[outer] as number) + 1;
  return { open, outersOf };
}

function encloses(outer: BoxMm, inner: BoxMm): boolean {
  return (
    outer.minX <= inner.minX &&
    outer.minY <= inner.minY &&
    outer.maxX >= inner.maxX &&
    outer.maxY >= inner.maxY
  );
}

function pickNearest(
  routes: readonly Route[],
  left: ReadonlySet<number>,
  waitsFor: Containment,
  at: PointMm,
): { readonly index: number; readonly vertex: number } {
  let best = { index: -1, vertex: 0, distance: Infinity };
  for (const index of left) {
    if ((waitsFor.open[index] as number) > 0) continue;
    const route = routes[index] as Route;
    const last = route.points.length - 1;
    const stride = route.isClosed ? 1 : last;
    for (let vertex = 0; vertex <= last; vertex += Math.max(1, stride)) {
      const distance = distanceMm(at, route.points[vertex] as PointMm);
      if (distance < best.distance) best = { index, vertex, distance };
    }
  }
  return best;
}

function enterAt(route: Route, vertex: number): Route {
  if (vertex === 0) return route;
  if (!route.isClosed) return { ...route, points: [...route.points].reverse() };
  const ring = route.points.slice(0, -1);
  const turn = vertex % ring.length;
  const turned = [...ring.slice(turn), ...ring.slice(0, turn)];
  return { ...route, points: [...turned, turned[0] as PointMm] };
}
