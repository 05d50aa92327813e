import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { PointMm } from '#core/geometry/point.ts';
import type { ShownLayout } from '#core/job/describeLayout.ts';
import {
  dropPlacements,
  movedWith,
  placementAt,
  shiftPlacements,
  snapShift,
  turnPlacements,
  type HandSheet,
  type Shift,
} from '#core/sheet/hands/movePieces.ts';
import { anglesOf, type Layout } from '#core/sheet/layout.ts';
import { placeOf } from '#web/islands/job/roles/useLasso.ts';
import type { useJob } from '#web/islands/job/useJob.ts';

/** Pieces of a sheet in somebody's hands. */
export interface Hands {
  readonly isOn: boolean;
  /** Which placements are held. */
  readonly held: readonly number[];
  /** How far they are dragged by now. */
  readonly shift: Shift;
  readonly canUndo: boolean;
  readonly undo: () => void;
  readonly pointer: Readonly<
    Record<'onPointerDown' | 'onPointerMove' | 'onPointerUp', (event: PointerEvent<SVGSVGElement>) => void>
  >;
  readonly onKeyDown: (event: KeyboardEvent<SVGSVGElement>) => void;
}

const RESTS: Shift = { xMm: 0, yMm: 0 };
/** A piece that comes so near an edge goes to it, in shares of what is shown. */
const SNAP_SHARE = 0.008;
const NUDGE_MM = 1;
const FAR_MM = 10;
const FINE_MM = 0.1;
const MOST_UNDONE = 50;

const ARROWS: Readonly<Record<string, Shift>> = {
  ArrowLeft: { xMm: -1, yMm: 0 },
  ArrowRight: { xMm: 1, yMm: 0 },
  ArrowUp: { xMm: 0, yMm: -1 },
  ArrowDown: { xMm: 0, yMm: 1 },
};

/** Moving pieces on the sheet by pointer and keys, with a way back. */
export function useHands(
  { job, change, step, sheetNumber }: ReturnType<typeof useJob>,
  { pieces }: ShownLayout,
  isLayingOut: boolean,
): Hands {
  const [grip, setGrip] = useState<number | null>(null);
  const [from, setFrom] = useState<PointMm | null>(null);
  const [shift, setShift] = useState<Shift>(RESTS);
  const { layout, sheet } = job;
  const on: HandSheet = { pieces, placements: layout.placements, sheetIndex: sheetNumber - 1 };
  const held = grip !== null && layout.placements[grip] ? movedWith(on, grip) : [];
  const { keep, undo, canUndo } = useUndo(layout, (next) => change({ layout: next }));
  const snapped = (event: PointerEvent<SVGSVGElement>, start: PointMm): Shift => {
    const { x, y } = placeOf(event);
    const withinMm = event.ctrlKey ? 0 : event.currentTarget.viewBox.baseVal.width * SNAP_SHARE;
    const wanted = { xMm: x - start.x, yMm: y - start.y };
    return snapShift(on, held, wanted, { sheet, spacingMm: layout.spacingMm, withinMm });
  };
  const pointer: Hands['pointer'] = {
    onPointerDown: (event) => {
      const at = placeOf(event);
      const found = placementAt(on, at);
      setGrip(found);
      setShift(RESTS);
      setFrom(found === null ? null : at);
      if (found !== null) event.currentTarget.setPointerCapture(event.pointerId);
    },
    onPointerMove: (event) => {
      if (from) setShift(snapped(event, from));
    },
    onPointerUp: (event) => {
      if (!from) return;
      const by = snapped(event, from);
      setFrom(null);
      setShift(RESTS);
      const { x, y } = placeOf(event);
      const isMoved = Math.hypot(x - from.x, y - from.y) > FINE_MM;
      if (isMoved) keep(shiftPlacements(layout, held, by));
    },
  };
  const onKeyDown: Hands['onKeyDown'] = (event) => {
    const isUndo = (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z';
    const next = held.length > 0 && !isUndo ? keyed(event, layout, held) : null;
    if (isUndo) undo();
    else if (event.key === ',' || event.key === '.') setGrip(nextGrip(on, grip, event.key === '.' ? 1 : -1));
    else if (next) keep(next);
    else return;
    event.preventDefault();
  };
  const isOn = step === 'sheet' && !isLayingOut && layout.placements.length > 0;
  return { isOn, held, shift, canUndo, undo, pointer, onKeyDown };
}

/** Layouts as they were before, the last first to come back. */
function useUndo(layout: Layout, onChange: (layout: Layout) => void) {
  const before = useRef<Layout[]>([]);
  const [count, setCount] = useState(0);
  return {
    canUndo: count > 0,
    keep: (next: Layout) => {
      before.current = [...before.current.slice(1 - MOST_UNDONE), layout];
      setCount(before.current.length);
      onChange(next);
    },
    undo: () => {
      const last = before.current.pop();
      setCount(before.current.length);
      if (last) onChange(last);
    },
  };
}

/** What a key makes of what is held; `null` for one that does nothing. */
function keyed(event: KeyboardEvent, layout: Layout, held: readonly number[]): Layout | null {
  if (ARROWS[event.key]) return shiftPlacements(layout, held, nudge(event));
  if (event.ctrlKey || event.metaKey) return null;
  const [, turn] = anglesOf(layout.turns);
  if (event.key.toLowerCase() === 'r') return turn === undefined ? null : turnPlacements(layout, held, turn);
  return event.key === 'Delete' || event.key === 'Backspace' ? dropPlacements(layout, held) : null;
}

function nudge({ key, shiftKey, ctrlKey }: KeyboardEvent): Shift {
  const { xMm, yMm } = ARROWS[key] ?? RESTS;
  const step = shiftKey ? FAR_MM : ctrlKey ? FINE_MM : NUDGE_MM;
  return { xMm: xMm * step, yMm: yMm * step };
}

/** The next placement on the sheet, around and around. */
function nextGrip({ placements, sheetIndex }: HandSheet, grip: number | null, by: 1 | -1): number | null {
  const here = placements.flatMap(({ sheet }, at) => (sheet === sheetIndex ? [at] : []));
  if (here.length === 0) return null;
  const now = grip === null ? -1 : here.indexOf(grip);
  const next = now < 0 ? (by > 0 ? 0 : here.length - 1) : (now + by + here.length) % here.length;
  return here[next] ?? null;
}
