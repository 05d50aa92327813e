import type { CutStroke } from '#devices/cutter/sheet/cutStroke.ts';
import type { Spot } from '#devices/cutter/instruction.ts';
import type { SheetTruth } from '#devices/cutter/sheet/sheetTruth.ts';

/** How a piece held, or a crease folded, from 0 far too little to 4 far too much; `null` without any. */
export interface Handled {
  readonly held: number | null;
  readonly folded: number | null;
}

/** What a thumb and a fold tell of a sheet, in the world of the stand-in. N and shares, invented. */
const PARTED = 7;
/** A gap no longer than this is a tab that was left whole, mm. */
const GAP_MM = 3;
const LEAST_MM = 8;
const NEWTON_PER_GF = 0.00980665;
const DRAG = 0.7;
const CARRYING = 0.3;
const HOLDS = [1.1, 2.2] as const;
const PUSH_N = [16, 25] as const;
const FOLDS = [-0.6, -0.2, 0.2, 0.6] as const;
const PASS_POWER = 0.35;

/** A closed outline, or the beginning of one. */
interface Ring {
  readonly tabsMm: readonly number[];
  readonly forceGf: number;
}

/** What hands find of the sheet: its weakest perforated piece pushed out, its first crease folded. */
export function handleSheet(strokes: readonly CutStroke[], truth: SheetTruth): Handled {
  const rings = listRings(strokes.filter(({ isPressed }) => !isPressed));
  const held = rings.map((ring) => holdOf(ring, truth)).sort((a, b) => a - b)[0] ?? null;
  return {
    held,
    folded: foldOf(
      strokes.filter(({ isPressed }) => isPressed),
      truth,
    ),
  };
}

function holdOf({ tabsMm, forceGf }: Ring, { tabNPerMm }: SheetTruth): number {
  if (tabsMm.length === 0) return 0;
  const tabN = (tabNPerMm * tabsMm.reduce((sum, length) => sum + length, 0)) / tabsMm.length;
  const holds = (tabN * Math.max(1, CARRYING * tabsMm.length)) / (DRAG * forceGf * NEWTON_PER_GF);
  const push = tabN * Math.min(2, tabsMm.length);
  if (holds < HOLDS[1]) return holds < HOLDS[0] ? 0 : 1;
  return 2 + PUSH_N.filter((most) => push > most).length;
}

/** Outlines of the strokes as they follow each other; what only kisses is none. */
function listRings(strokes: readonly CutStroke[]): readonly Ring[] {
  const rings: Ring[] = [];
  let chain: CutStroke[] = [];
  for (const stroke of strokes) {
    const end = chain.at(-1)?.path.at(-1);
    const first = stroke.path[0];
    if (end && first && apart(end, first) > GAP_MM) chain = [];
    chain.push(stroke);
    const ring = closeRing(chain);
    if (!ring) continue;
    rings.push(ring);
    chain = [];
  }
  return rings;
}

function closeRing(chain: readonly CutStroke[]): Ring | null {
  const [start, end] = [chain[0]?.path[0], chain.at(-1)?.path.at(-1)];
  const lengthMm = chain.reduce((sum, { path }) => sum + lengthOf(path), 0);
  if (!start || !end || apart(start, end) > GAP_MM || lengthMm < LEAST_MM) return null;
  const tabsMm: number[] = [];
  let partedMm = 0;
  let openMm = 0;
  const close = () => {
    if (openMm > 0.1) tabsMm.push(openMm);
    openMm = 0;
  };
  chain.forEach(({ path, spans }, index) => {
    const before = chain[index - 1]?.path.at(-1);
    if (before && path[0]) openMm += apart(before, path[0]);
    for (const { from, to, grade } of spans) {
      const stretch = (to - from) * lengthOf(path);
      if (grade < PARTED) openMm += stretch;
      else {
        close();
        partedMm += stretch;
      }
    }
  });
  openMm += apart(end, start);
  close();
  const forceGf = Math.max(...chain.map((stroke) => stroke.forceGf));
  return partedMm > lengthMm / 2 ? { tabsMm, forceGf } : null;
}

/** Each stroke along the same line presses once more. */
function foldOf(pressed: readonly CutStroke[], { creaseGf }: SheetTruth): number | null {
  const first = pressed[0];
  if (!first) return null;
  const again = pressed.filter(({ path }) => apart(path[0] as Spot, first.path[0] as Spot) < 1).length;
  const press = Math.log((first.forceGf * again ** PASS_POWER) / creaseGf);
  return FOLDS.filter((bound) => press > bound).length;
}

function lengthOf(path: readonly Spot[]): number {
  return path.reduce((sum, spot, index) => {
    const before = path[index - 1];
    return before ? sum + apart(before, spot) : sum;
  }, 0);
}

function apart(a: Spot, b: Spot): number {
  return Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm);
}
