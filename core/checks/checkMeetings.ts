import Flatbush from 'flatbush';
import type { CutLine } from '#core/checks/findTroubles.ts';
import type { CheckFacts, Trouble } from '#core/checks/trouble.ts';
import { distanceToWay } from '#core/checks/findDuplicates.ts';
import { FREEING_ROLES } from '#core/drawing/lineRoles.ts';
import { boundPoints, encloses, overlap, type BoxMm } from '#core/geometry/box.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { isInside } from '#core/geometry/polygon.ts';

/** More crossings of one pair of lines need no naming. */
const MOST_SEGMENTS = 600_000;
/** A bar of a stencil that holds an island, mm. Common practice, no source. */
const BRIDGE_MM = 2;

/** What lines do to each other: cross, come too close, or leave islands in a stencil. */
export function checkMeetings(lines: readonly CutLine[], facts: CheckFacts): readonly Trouble[] {
  const boxes = lines.map(({ points }) => boundPoints(points));
  return [
    ...findCrossings(lines),
    ...findClose(lines, boxes, facts),
    ...(facts.family === 'stencilSheet' ? findIslands(lines, boxes) : []),
  ];
}

interface Crossing {
  readonly a: number;
  readonly b: number;
  readonly at: PointMm;
}

function findCrossings(lines: readonly CutLine[]): readonly Trouble[] {
  return listCrossings(lines).map(({ a, b, at }) => {
    const [first, second] = [lines[a] as CutLine, lines[b] as CutLine];
    const isSelf = a === b;
    return {
      kind: 'crossing',
      weight: 'careful',
      what: isSelf
        ? `line ${first.id + 1} crosses itself`
        : `line ${first.id + 1} (${first.role}) crosses line ${second.id + 1} (${second.role})`,
      why: 'the blade meets an edge that is loose already: corners lift and tear there',
      lineIds: isSelf ? [first.id] : [first.id, second.id],
      at,
      fix: null,
    };
  });
}

/** One crossing for each pair of lines that cross. Slits, creases and scores may meet others. */
function listCrossings(lines: readonly CutLine[]): readonly Crossing[] {
  const open = new Set(['slit', 'crease', 'score']);
  const segments = lines.reduce((sum, { points }) => sum + points.length - 1, 0);
  if (segments === 0 || segments > MOST_SEGMENTS) return [];
  const ends = new Float64Array(segments * 4);
  const owner = new Int32Array(segments);
  const tree = new Flatbush(segments);
  let at = 0;
  lines.forEach(({ points }, line) => {
    for (let index = 1; index < points.length; index++, at++) {
      const [p, q] = [points[index - 1] as PointMm, points[index] as PointMm];
      ends.set([p.x, p.y, q.x, q.y], at * 4);
      owner[at] = line;
      tree.add(Math.min(p.x, q.x), Math.min(p.y, q.y), Math.max(p.x, q.x), Math.max(p.y, q.y));
    }
  });
  tree.finish();
  const seen = new Set<number>();
  const found: Crossing[] = [];
  for (let one = 0; one < segments; one++) {
    const [ax, ay, bx, by] = ends.subarray(one * 4, one * 4 + 4) as unknown as [
      number,
      number,
      number,
      number,
    ];
    const near = tree.search(
      Math.min(ax, bx),
      Math.min(ay, by),
      Math.max(ax, bx),
      Math.max(ay, by),
      (i) => i > one,
    );
    for (const other of near) {
      const [a, b] = [owner[one] as number, owner[other] as number];
      if (open.has((lines[a] as CutLine).role) !== open.has((lines[b] as CutLine).role)) continue;
      const key = Math.min(a, b) * lines.length + Math.max(a, b);
      if (seen.has(key)) continue;
      const [cx, cy, dx, dy] = ends.subarray(other * 4, other * 4 + 4) as unknown as [
        number,
        number,
        number,
        number,
      ];
      const point = cross(ax, ay, bx, by, cx, cy, dx, dy);
      if (!point) continue;
      seen.add(key);
      found.push({ a, b, at: point });
    }
  }
  return found;
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
  if (Math.abs(denominator) < 1e-12) return null;
  const t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / denominator;
  const u = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / denominator;
  const edge = 1e-6;
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
  const troubles: Trouble[] = [];
  freeing.forEach((a, index) => {
    const [line, box] = [lines[a] as CutLine, boxes[a] as BoxMm];
    const grown = {
      minX: box.minX - least,
      minY: box.minY - least,
      maxX: box.maxX + least,
      maxY: box.maxY + least,
    };
    for (const b of freeing.slice(index + 1)) {
      const [other, otherBox] = [lines[b] as CutLine, boxes[b] as BoxMm];
      if (!overlap(grown, otherBox) || encloses(box, otherBox) || encloses(otherBox, box)) continue;
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

/** On a stencil what lies within an opening falls out with it. */
function findIslands(lines: readonly CutLine[], boxes: readonly BoxMm[]): readonly Trouble[] {
  const through = [...lines.keys()].filter((at) => {
    const line = lines[at] as CutLine;
    return line.isClosed && line.role === 'through';
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
