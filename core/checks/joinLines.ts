import { itemAt } from '#core/collections/itemAt.ts';
import { ROUNDING } from '#core/units/rounding.ts';
import Flatbush from 'flatbush';
import type { DrawnContour } from '#core/drawing/drawing.ts';
import {
  endOf,
  packSegments,
  segmentsOf,
  startOf,
  type Contour,
  type Segment,
} from '#core/geometry/contour.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';

/**
 * Joins open lines of one look whose ends meet. The joined line keeps the first one's id; small gaps are bridged by a
 * straight line; an outline whose own ends meet is closed.
 *
 * @param withinMm greatest gap that is bridged, above 0
 * @example joinLines(drawing.contours, 0.5).length // 2
 */
export function joinLines(contours: readonly DrawnContour[], withinMm: number): readonly DrawnContour[] {
  const open = contours.filter(({ contour }) => !contour.isClosed);
  if (open.length === 0) return contours;
  const tree = new Flatbush(open.length * 2);
  for (const { contour } of open) for (const { x, y } of endsOf(contour)) tree.add(x, y);
  tree.finish();
  const isUsed = new Uint8Array(open.length);
  const joined = new Map<number, DrawnContour>();
  const gone = new Set<number>();
  open.forEach((line, index) => {
    if (isUsed[index]) return;
    isUsed[index] = 1;
    let chain = segmentsOf(line.contour);
    const grow = () => {
      const end = (chain.at(-1) as Segment).to;
      const found = tree
        .search(end.x - withinMm, end.y - withinMm, end.x + withinMm, end.y + withinMm)
        .map((at) => ({ line: at >> 1, isEnd: at % 2 === 1 }))
        .filter(({ line: other }) => !isUsed[other] && looksAlike(itemAt(open, other), line))
        .map((one) => ({ ...one, gap: gapTo(itemAt(open, one.line), one.isEnd, end) }))
        .filter(({ gap }) => gap <= withinMm)
        .sort((a, b) => a.gap - b.gap)[0];
      if (!found) return false;
      isUsed[found.line] = 1;
      const other = itemAt(open, found.line);
      const tail = segmentsOf(other.contour);
      gone.add(other.id);
      chain = link(chain, found.isEnd ? reverse(tail) : tail);
      return true;
    };
    while (grow());
    chain = reverse(chain);
    while (grow());
    const first = itemAt(chain, 0).from;
    const last = (chain.at(-1) as Segment).to;
    const isClosed = chain.length > 1 && distanceMm(first, last) <= withinMm;
    joined.set(line.id, { ...line, contour: packSegments(isClosed ? close(chain) : chain, isClosed) });
  });
  return contours.filter(({ id }) => !gone.has(id)).map((line) => joined.get(line.id) ?? line);
}

function looksAlike(a: DrawnContour, b: DrawnContour): boolean {
  return a.layer === b.layer && a.strokeColour === b.strokeColour && a.dash === b.dash;
}

function endsOf(contour: Contour): readonly [PointMm, PointMm] {
  return [startOf(contour), endOf(contour)];
}

function gapTo({ contour }: DrawnContour, isEnd: boolean, to: PointMm): number {
  return distanceMm(endsOf(contour)[isEnd ? 1 : 0], to);
}

function link(a: readonly Segment[], b: readonly Segment[]): readonly Segment[] {
  const from = (a.at(-1) as Segment).to;
  const to = itemAt(b, 0).from;
  const gap: readonly Segment[] = distanceMm(from, to) > ROUNDING ? [{ kind: 'line', from, to }] : [];
  return [...a, ...gap, ...b];
}

function close(chain: readonly Segment[]): readonly Segment[] {
  const from = (chain.at(-1) as Segment).to;
  const to = itemAt(chain, 0).from;
  return distanceMm(from, to) > ROUNDING ? [...chain, { kind: 'line', from, to }] : chain;
}

function reverse(segments: readonly Segment[]): readonly Segment[] {
  return [...segments].reverse().map((segment) =>
    segment.kind === 'line'
      ? { kind: 'line', from: segment.to, to: segment.from }
      : {
          kind: 'cubic',
          from: segment.to,
          control1: segment.control2,
          control2: segment.control1,
          to: segment.from,
        },
  );
}
