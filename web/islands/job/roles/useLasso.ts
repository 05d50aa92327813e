import { useState, type PointerEvent } from 'react';
import type { BoxMm } from '#core/geometry/box.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { ShownLine } from '#core/job/describeLayout.ts';

/** A move shorter than this is a click, in shares of the drawing's width. */
const CLICK_SHARE = 0.006;

/** Choosing lines on a drawing: a click takes the nearest, a drag all that lie within. */
export function useLasso(
  lines: readonly ShownLine[],
  chosen: readonly number[],
  onChoose: (lineIds: readonly number[]) => void,
) {
  const [start, setStart] = useState<PointMm | null>(null);
  const [end, setEnd] = useState<PointMm | null>(null);
  const box = start && end ? boxOf(start, end) : null;
  const finish = (event: PointerEvent<SVGSVGElement>) => {
    if (!start) return;
    const at = placeOf(event);
    const reach = event.currentTarget.viewBox.baseVal.width * CLICK_SHARE;
    const isClick = Math.hypot(at.x - start.x, at.y - start.y) < reach;
    const found = isClick ? nearestLine(lines, at, 4 * reach) : linesWithin(lines, boxOf(start, at));
    const kept = event.shiftKey ? chosen : [];
    onChoose([...new Set([...kept, ...found])]);
    setStart(null);
    setEnd(null);
  };
  return {
    box,
    pointer: {
      onPointerDown: (event: PointerEvent<SVGSVGElement>) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        setStart(placeOf(event));
      },
      onPointerMove: (event: PointerEvent<SVGSVGElement>) => start && setEnd(placeOf(event)),
      onPointerUp: finish,
    },
  };
}

/** Where on a drawing, in mm, a pointer is. */
export function placeOf(event: PointerEvent<SVGSVGElement>): PointMm {
  const matrix = event.currentTarget.getScreenCTM();
  if (!matrix) return { x: 0, y: 0 };
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
  return { x, y };
}

function boxOf(a: PointMm, b: PointMm): BoxMm {
  return {
    minX: Math.min(a.x, b.x),
    minY: Math.min(a.y, b.y),
    maxX: Math.max(a.x, b.x),
    maxY: Math.max(a.y, b.y),
  };
}

function linesWithin(lines: readonly ShownLine[], { minX, minY, maxX, maxY }: BoxMm): readonly number[] {
  return lines
    .filter(({ box }) => box.minX >= minX && box.minY >= minY && box.maxX <= maxX && box.maxY <= maxY)
    .map(({ sourceId }) => sourceId);
}

/** Among lines whose box the click touches, the one whose drawn path is nearest; measured by the browser. */
function nearestLine(lines: readonly ShownLine[], { x, y }: PointMm, reach: number): readonly number[] {
  const path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
  let best: { id: number; distance: number } | null = null;
  for (const { box, data, sourceId } of lines) {
    if (x < box.minX - reach || x > box.maxX + reach || y < box.minY - reach || y > box.maxY + reach)
      continue;
    path.setAttribute('d', data);
    const total = path.getTotalLength();
    const steps = Math.min(400, Math.max(20, Math.ceil(total / reach)));
    for (let step = 0; step <= steps; step++) {
      const at = path.getPointAtLength((step / steps) * total);
      const distance = Math.hypot(at.x - x, at.y - y);
      if (distance <= reach && distance < (best?.distance ?? Infinity)) best = { id: sourceId, distance };
    }
  }
  return best ? [best.id] : [];
}
