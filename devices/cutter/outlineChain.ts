import type { Span } from '#devices/cutter/sheet/cutSheet.ts';
import type { Spot } from '#devices/cutter/instruction.ts';

/** What a closed outline amounts to: free all around, held by tabs, or only kissed. */
export type Outline =
  | { readonly kind: 'free' }
  | { readonly kind: 'tabbed'; readonly tabShare: number }
  | { readonly kind: 'kissed' };

const PARTED = 7;
const FACE_FREE = 3;
const CLOSED_MM = 1.5;
const JOINED_MM = 0.1;
/** Shorter than this nothing is a piece. */
const LEAST_MM = 8;

/** Puts strokes that go on where the last one ended together to outlines. */
export class OutlineChain {
  private start: Spot | null = null;
  private end: Spot | null = null;
  private lengthMm = 0;
  private partedMm = 0;
  private kissedMm = 0;

  /** @returns the outline that this stroke closes, or `null` */
  add(path: readonly Spot[], spans: readonly Span[]): Outline | null {
    const [first, last] = [path[0], path.at(-1)];
    if (!first || !last) return null;
    if (!this.end || apart(this.end, first) > JOINED_MM) this.begin(first);
    const length = path.reduce((sum, spot, index) => {
      const before = path[index - 1];
      return before ? sum + apart(before, spot) : sum;
    }, 0);
    this.lengthMm += length;
    for (const { from, to, grade } of spans) {
      if (grade >= PARTED) this.partedMm += (to - from) * length;
      else if (grade >= FACE_FREE) this.kissedMm += (to - from) * length;
    }
    this.end = last;
    if (!this.start || apart(this.start, last) > CLOSED_MM || this.lengthMm < LEAST_MM) return null;
    const outline = this.judge();
    this.begin(last);
    return outline;
  }

  private judge(): Outline | null {
    const left = 1 - this.partedMm / this.lengthMm;
    if (left < 0.001) return { kind: 'free' };
    if (left < 0.5) return { kind: 'tabbed', tabShare: left };
    return this.kissedMm / this.lengthMm > 0.95 ? { kind: 'kissed' } : null;
  }

  private begin(at: Spot): void {
    this.start = at;
    this.end = at;
    this.lengthMm = 0;
    this.partedMm = 0;
    this.kissedMm = 0;
  }
}

function apart(a: Spot, b: Spot): number {
  return Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm);
}
