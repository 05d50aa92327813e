import { unevenness } from '#devices/cutter/sheet/unevenness.ts';
import type { Spot } from '#devices/cutter/instruction.ts';
import type { SheetTruth } from '#devices/cutter/sheet/sheetTruth.ts';

/** What a stretch of a stroke reached, on the grades 0 to 8. */
export interface Span {
  readonly from: number;
  readonly to: number;
  readonly grade: number;
}

/** How a stroke is cut. Force in true grams. */
export interface CutConditions {
  readonly forceGf: number;
  readonly speedMmPerS: number;
  readonly exposureMm: number;
  readonly bladeMetres: number;
}

const SAMPLE_MM = 1;
/** How repeated cuts add up: the p-norm of their forces. Two equal passes act like one with 1.29 times the force. */
const PASS_NORM = 2.7;

/** A sheet on the stand-in, which remembers how often each spot was cut. */
export class CutSheet {
  private readonly workDone = new Map<string, number>();

  constructor(
    private readonly truth: SheetTruth,
    private readonly seed: number,
    /** This very sheet against others of its make, about 1. */
    private readonly sheetFactor: number,
  ) {}

  /** Cuts along a polyline and says what was reached, stretch by stretch. */
  cut(points: readonly Spot[], conditions: CutConditions): readonly Span[] {
    const samples = samplePath(points);
    const grades = samples.map((spot) => this.cutSpot(spot, conditions));
    return toSpans(grades);
  }

  private cutSpot(spot: Spot, conditions: CutConditions): number {
    const sharpness = (1 + conditions.bladeMetres / 900) ** -0.28;
    const haste = (Math.max(5, conditions.speedMmPerS) / 100) ** -0.045;
    const local = 1 + 0.03 * unevenness(this.seed, spot.xMm, spot.yMm);
    const acting = (conditions.forceGf * sharpness * haste) / (this.sheetFactor * local);
    const place = `${Math.round(spot.xMm * 1.25)}/${Math.round(spot.yMm * 1.25)}`;
    const before = this.workDone.get(place) ?? 0;
    const work = before + acting ** PASS_NORM;
    this.workDone.set(place, work);
    return gradeAt(work ** (1 / PASS_NORM), this.truth, conditions.exposureMm);
  }
}

/** Depth grows with force layer by layer; the grade is read off the depth. */
export function gradeAt(forceGf: number, truth: SheetTruth, exposureMm: number): number {
  const limitUm = exposureMm * 1000;
  const depthUm = Math.min(limitUm, depthAt(forceGf, truth));
  const face = depthUm / truth.toLinerUm;
  if (face < 0.3) return 0;
  if (face < 0.9) return 1;
  if (face < 1) return 2;
  if (!truth.isLayered) return forceGf > truth.faceGf * 1.42 && limitUm > truth.totalUm + 60 ? 8 : 7;
  const liner = (depthUm - truth.toLinerUm) / (truth.totalUm - truth.toLinerUm);
  if (liner < 0.2) return 3;
  if (liner < 0.5) return 4;
  if (liner < 0.85) return 5;
  if (liner < 1) return 6;
  return forceGf > truth.stackGf * 1.38 && limitUm > truth.totalUm + 60 ? 8 : 7;
}

function depthAt(forceGf: number, truth: SheetTruth): number {
  if (forceGf <= truth.faceGf) return truth.toLinerUm * Math.max(0, (forceGf / truth.faceGf - 0.35) / 0.65);
  if (!truth.isLayered) return truth.totalUm;
  const share = (forceGf - truth.faceGf) / (truth.stackGf - truth.faceGf);
  return truth.toLinerUm + (truth.totalUm - truth.toLinerUm) * Math.min(1, share);
}

function samplePath(points: readonly Spot[]): readonly Spot[] {
  const samples: Spot[] = [];
  for (let index = 1; index < points.length; index++) {
    const from = points[index - 1] as Spot;
    const to = points[index] as Spot;
    const length = Math.hypot(to.xMm - from.xMm, to.yMm - from.yMm);
    const count = Math.max(1, Math.round(length / SAMPLE_MM));
    for (let step = 0; step < count; step++) {
      const share = (step + 0.5) / count;
      samples.push({
        xMm: from.xMm + (to.xMm - from.xMm) * share,
        yMm: from.yMm + (to.yMm - from.yMm) * share,
      });
    }
  }
  return thin(samples);
}

/** Finely divided curves give many samples to a millimetre: one a spot is enough, or passes would add up falsely. */
function thin(samples: readonly Spot[]): readonly Spot[] {
  const kept: Spot[] = [];
  for (const spot of samples) {
    const last = kept.at(-1);
    if (!last || Math.hypot(spot.xMm - last.xMm, spot.yMm - last.yMm) >= SAMPLE_MM * 0.9) kept.push(spot);
  }
  return kept;
}

function toSpans(grades: readonly number[]): readonly Span[] {
  const spans: { from: number; to: number; grade: number }[] = [];
  grades.forEach((grade, index) => {
    const last = spans.at(-1);
    const to = (index + 1) / grades.length;
    if (last?.grade === grade) last.to = to;
    else spans.push({ from: index / grades.length, to, grade });
  });
  return spans;
}
