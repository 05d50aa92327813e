import type { CutStroke } from '#devices/cutter/sheet/cutStroke.ts';
import type { Spot } from '#devices/cutter/instruction.ts';

const FREE = 7;
const FACE_FREE = 3;
const RIM_MM = 8;

/**
 * The sheet of a stand-in as an SVG: every stroke in the depth it reached, or, after weeding, what has come away: faces
 * that lifted, pieces that are free, and what still hangs.
 */
export function drawSheet(strokes: readonly CutStroke[], isWeeded: boolean): string {
  const spots = strokes.flatMap(({ path }) => path);
  if (spots.length === 0) return '<p>Nothing is cut on this sheet.</p>';
  const [minX, maxX] = [Math.min(...spots.map(({ xMm }) => xMm)), Math.max(...spots.map(({ xMm }) => xMm))];
  const [minY, maxY] = [Math.min(...spots.map(({ yMm }) => yMm)), Math.max(...spots.map(({ yMm }) => yMm))];
  const box = [minX - RIM_MM, -maxY - RIM_MM, maxX - minX + 2 * RIM_MM, maxY - minY + 2 * RIM_MM];
  const marks = strokes.map((stroke) => (isWeeded ? drawWeeded(stroke) : drawStroke(stroke))).join('');
  const label = isWeeded ? 'the sheet after weeding' : 'the sheet from above';
  return `<svg viewBox="${box.map((value) => value.toFixed(1)).join(' ')}" role="img" aria-label="${label}">${marks}</svg>`;
}

function drawStroke({ path, spans, seat }: CutStroke): string {
  const reached = lowest(spans);
  const colour =
    seat > 1 && reached === 0
      ? '#94650f'
      : reached >= FREE
        ? '#1e2a32'
        : reached >= FACE_FREE
          ? '#1f766f'
          : '#b98316';
  const dash = reached < FACE_FREE ? ' stroke-dasharray="2 1.4"' : '';
  return `<polyline points="${pointsOf(path)}" fill="none" stroke="${colour}" stroke-width="0.5"${dash}/>`;
}

/** A ring whose shallowest stretch is deep enough has let go. */
function drawWeeded({ path, spans }: CutStroke): string {
  const [first, last] = [path[0], path.at(-1)];
  const isRing =
    first !== undefined && last !== undefined && Math.hypot(first.xMm - last.xMm, first.yMm - last.yMm) < 1.5;
  const reached = lowest(spans);
  if (!isRing || reached < FACE_FREE) {
    return `<polyline points="${pointsOf(path)}" fill="none" stroke="#d8d2c4" stroke-width="0.4"/>`;
  }
  const fill = reached >= FREE ? '#e9e4d8' : '#8ea6b4';
  const hatch = reached >= FREE ? ' stroke-dasharray="3 2"' : '';
  return `<polygon points="${pointsOf(path)}" fill="${fill}" fill-opacity="0.7" stroke="#1e2a32" stroke-width="0.3"${hatch}/>`;
}

function lowest(spans: CutStroke['spans']): number {
  return spans.reduce((least, { grade }) => Math.min(least, grade), 8);
}

function pointsOf(path: readonly Spot[]): string {
  return path.map(({ xMm, yMm }) => `${xMm.toFixed(2)},${(-yMm).toFixed(2)}`).join(' ');
}
