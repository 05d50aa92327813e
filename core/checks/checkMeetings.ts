import { LENGTH_MM } from '#core/geometry/tolerances.ts';
import { NOTHING, ROUNDING } from '#core/units/rounding.ts';
import { factsOf } from '#core/stack/families/families.ts';
import Flatbush from 'flatbush';
import type { CutLine } from '#core/checks/cutLine.ts';
import type { CheckFacts, Trouble } from '#core/checks/trouble.ts';
import { distanceToWay } from '#core/geometry/distanceToWay.ts';
import { FREEING_ROLES } from '#core/drawing/roles/lineRoles.ts';
import { boundPoints, encloses, type BoxMm } from '#core/geometry/box.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { isInside } from '#core/geometry/polygon.ts';

/** Above so many segments meetings are not looked for. */
const MOST_SEGMENTS = 600_000;
/** Segments this near and parallel lie on each other, mm. */
const SAME_WAY_MM = 0.02;
/** A shared way shorter than this is where lines touch, mm. */
const SHARED_MM = 1;
/** A bar of a stencil that holds an island, mm. Common practice, no source. */
const BRIDGE_MM = 2;

/**
 * What lines do to each other: cross, come too close, or leave islands in a stencil.
 *
 * @example checkMeetings([], facts) // []
 */
export function checkMeetings(lines: readonly CutLine[], facts: CheckFacts): readonly Trouble[] {
  const boxes = lines.map(({ points }) => boundPoints(points));
  return [
    ...findCrossings(lines),
    ...findShared(lines),
    ...findClose(lines, boxes, facts),
    ...(factsOf(facts.family).isPaintedThrough ? findIslands(lines, boxes) : []),
  ];
}

interface Crossing {
  readonly a: CutLine;
  readonly b: CutLine;
  readonly at: PointMm;
}

function findCrossings(lines: readonly CutLine[]): readonly Trouble[] {
  return listCrossings(lines).map(({ a, b, at }) => ({
    kind: 'crossing',
    weight: 'careful',
    what:
      a === b
        ? `line ${a.id + 1} crosses itself`
        : `line ${a.id + 1} (${a.role}) crosses line ${b.id + 1} (${b.role})`,
    why: 'the blade meets an edge that is loose already: corners lift and tear there',
    lineIds: a === b ? [a.id] : [a.id, b.id],
    at,
    fix: null,
  }));
}

/** Lines that run on each other for a while: the blade passes twice there. */
function findShared(lines: readonly CutLine[]): readonly Trouble[] {
  const pairs = new Map<
    string,
    { readonly a: CutLine; readonly b: CutLine; readonly at: PointMm; mm: number }
  >();
  forEachNear(lines, (a, b, first, second) => {
    if (a === b) return;
    const shared = sharedLength(first, second);
    if (shared <= 0) return;
    const key = `${a.id}/${b.id}`;
    const pair = pairs.get(key);
    if (pair) pair.mm += shared;
    else pairs.set(key, { a, b, at: { x: second[0], y: second[1] }, mm: shared });
  });
  return [...pairs.values()]
    .filter(({ mm }) => mm >= SHARED_MM)
    .map(({ a, b, at, mm }) => ({
      kind: 'duplicate',
      weight: 'careful',
      what: `lines ${a.id + 1} and ${b.id + 1} share ${mm.toFixed(1)} mm of their way`,
      why: 'the blade passes there twice and cuts deeper than the setting says',
      lineIds: [a.id, b.id],
      at,
      fix: null,
    }));
}

/** How much of two segments lies on each other, mm. */
function sharedLength([ax, ay, bx, by]: Ends, [cx, cy, dx, dy]: Ends): number {
  const length = Math.hypot(bx - ax, by - ay);
  if (length < ROUNDING) return 0;
  const [ux, uy] = [(bx - ax) / length, (by - ay) / length];
  const off = (x: number, y: number) => Math.abs((x - ax) * uy - (y - ay) * ux);
  if (off(cx, cy) > SAME_WAY_MM || off(dx, dy) > SAME_WAY_MM) return 0;
  const along = (x: number, y: number) => (x - ax) * ux + (y - ay) * uy;
  const [from, to] = [along(cx, cy), along(dx, dy)].sort((p, q) => p - q) as [number, number];
  return Math.max(0, Math.min(length, to) - Math.max(0, from));
}

/** One crossing for each pair of lines that cross. Slits, creases and scores may meet others. */
function listCrossings(lines: readonly CutLine[]): readonly Crossing[] {
  const open = new Set(['slit', 'crease', 'score']);
  const seen = new Set<string>();
  const found: Crossing[] = [];
  forEachNear(lines, (a, b, first, second) => {
    if (open.has(a.role) !== open.has(b.role)) return;
    const key = `${a.id}/${b.id}`;
    if (seen.has(key)) return;
    const at = cross(...first, ...second);
    if (!at) return;
    seen.add(key);
    found.push({ a, b, at });
  });
  return found;
}

/** Two ends of a segment: x and y of the first, x and y of the second. */
type Ends = readonly [number, number, number, number];

/** Every two segments whose boxes touch, the earlier line first. Nothing for drawings beyond all measure. */
function forEachNear(
  lines: readonly CutLine[],
  act: (a: CutLine, b: CutLine, first: Ends, second: Ends) => void,
): void {
  const segments = lines.reduce((sum, { points }) => sum + points.length - 1, 0);
  if (segments === 0 || segments > MOST_SEGMENTS) return;
  const ends: Ends[] = [];
  const owners: CutLine[] = [];
  const tree = new Flatbush(segments);
  for (const line of lines) {
    for (let index = 1; index < line.points.length; index++) {
      const [p, q] = [line.points[index - 1] as PointMm, line.points[index] as PointMm];
      ends.push([p.x, p.y, q.x, q.y]);
      owners.push(line);
      tree.add(Math.min(p.x, q.x), Math.min(p.y, q.y), Math.max(p.x, q.x), Math.max(p.y, q.y));
    }
  }
  tree.finish();
  ends.forEach((first, one) => {
    const [ax, ay, bx, by] = first;
    const near = tree.search(
      Math.min(ax, bx),
      Math.min(ay, by),
      Math.max(ax, bx),
      Math.max(ay, by),
      (other) => other > one,
    );
    for (const other of near) {
      act(owners[one] as CutLine, owners[other] as CutLine, first, ends[other] as Ends);
    }
  });
}

/** Where two segments cross properly: touching ends do not count. */
function cross(
  ax: number,
  ay: number,
  bx: number,
  by: number,
  cx: number,
  cy: number,
  dx: number,
  dy: number,
): PointMm | null {
  const denominator = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx);
  if (Math.abs(denominator) < NOTHING) return null;
  const t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / denominator;
  const u = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / denominator;
  const edge = LENGTH_MM;
  if (t <= edge || t >= 1 - edge || u <= edge || u >= 1 - edge) return null;
  return { x: ax + t * (bx - ax), y: ay + t * (by - ay) };
}

/** Freed pieces that lie side by side nearer than they should. */
function findClose(
  lines: readonly CutLine[],
  boxes: readonly BoxMm[],
  { spacingMm }: CheckFacts,
): readonly Trouble[] {
  const least = Math.min(1, spacingMm);
  const freeing = [...lines.keys()].filter((at) => {
    const line = lines[at] as CutLine;
    return line.isClosed && FREEING_ROLES.has(line.role);
  });
  if (freeing.length < 2) return [];
  const tree = new Flatbush(freeing.length);
  for (const at of freeing) {
    const { minX, minY, maxX, maxY } = boxes[at] as BoxMm;
    tree.add(minX, minY, maxX, maxY);
  }
  tree.finish();
  const troubles: Trouble[] = [];
  freeing.forEach((a, index) => {
    const [line, box] = [lines[a] as CutLine, boxes[a] as BoxMm];
    const around = tree.search(
      box.minX - least,
      box.minY - least,
      box.maxX + least,
      box.maxY + least,
      (rank) => rank > index,
    );
    for (const rank of around) {
      const b = freeing[rank] as number;
      const [other, otherBox] = [lines[b] as CutLine, boxes[b] as BoxMm];
      if (encloses(box, otherBox) || encloses(otherBox, box)) continue;
      const near = nearest(line.points, other.points);
      if (near.distance >= least) continue;
      troubles.push({
        kind: 'tooClose',
        weight: 'careful',
        what: `lines ${line.id + 1} and ${other.id + 1} lie ${near.distance.toFixed(2)} mm apart`,
        why: `the strip between two pieces tears below ${least.toFixed(1)} mm`,
        lineIds: [line.id, other.id],
        at: near.at,
        fix: null,
      });
    }
  });
  return troubles;
}

function nearest(
  a: readonly PointMm[],
  b: readonly PointMm[],
): { readonly distance: number; readonly at: PointMm } {
  let best = { distance: Infinity, at: a[0] as PointMm };
  for (const [points, way] of [
    [a, b],
    [b, a],
  ] as const) {
    for (const point of points) {
      const distance = distanceToWay(point, way);
      if (distance < best.distance) best = { distance, at: point };
    }
  }
  return best;
}

/** Roles whose pieces leave the sheet, at once or by a thumb. */
const FREED: ReadonlySet<CutLine['role']> = new Set(['through', 'perforated']);

/** On a stencil what lies within an opening falls out with it. */
function findIslands(lines: readonly CutLine[], boxes: readonly BoxMm[]): readonly Trouble[] {
  const through = [...lines.keys()].filter((at) => {
    const line = lines[at] as CutLine;
    return line.isClosed && FREED.has(line.role);
  });
  const around = (inner: number) =>
    through.filter(
      (outer) =>
        outer !== inner &&
        encloses(boxes[outer] as BoxMm, boxes[inner] as BoxMm) &&
        (lines[outer] as CutLine).areaMm2 > (lines[inner] as CutLine).areaMm2 &&
        isInside((lines[inner] as CutLine).points[0] as PointMm, (lines[outer] as CutLine).points),
    );
  const depths = new Map(through.map((at) => [at, around(at)]));
  // Depth 0 is the sheet's own outline where everything lies in one, else the openings themselves.
  const frames = through.filter((at) => depths.get(at)?.length === 0);
  const isFramed =
    frames.length === 1 &&
    through.length > 1 &&
    through.every((at) => at === frames[0] || (depths.get(at)?.length ?? 0) > 0);
  const base = isFramed ? 1 : 0;
  return through
    .filter((at) => ((depths.get(at)?.length ?? 0) - base) % 2 === 1)
    .map((at) => {
      const opening = [...(depths.get(at) ?? [])].sort(
        (a, b) => (lines[a] as CutLine).areaMm2 - (lines[b] as CutLine).areaMm2,
      )[0] as number;
      const [island, hole] = [lines[at] as CutLine, lines[opening] as CutLine];
      return {
        kind: 'island',
        weight: 'stop',
        what: `what line ${island.id + 1} surrounds falls out of the stencil`,
        why: 'nothing joins it to the sheet',
        lineIds: [island.id, hole.id],
        at: island.points[0] as PointMm,
        fix: {
          kind: 'edit',
          words: `Hold it by bars of ${BRIDGE_MM} mm`,
          edit: { kind: 'bridge', lineIds: [hole.id], widthMm: BRIDGE_MM },
        },
      };
    });
}
