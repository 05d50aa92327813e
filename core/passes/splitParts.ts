import type { Pass } from '#core/passes/plan.ts';

/** Passes that run without a hand in between: one machine file. */
export interface Part {
  readonly passes: readonly Pass[];
  /** What hands must do before it; `null` for a first part with nothing to do. */
  readonly before: string | null;
  readonly exposureMm: number;
}

/**
 * Splits a plan where hands are needed: at every pause, and, where the panel owns the numbers, at every change of
 * force or speed, because then no file may carry them.
 *
 * @example splitParts(kissThenThroughWithOneExposure, 'file').length // 1
 */
export function splitParts(passes: readonly Pass[], numbersOwner: 'file' | 'panel'): readonly Part[] {
  const parts: Part[] = [];
  for (const pass of passes) {
    const last = parts.at(-1);
    const dial =
      numbersOwner === 'panel'
        ? `Dial force ${pass.values.force} and speed ${pass.values.speed} at the panel`
        : null;
    const before = [pass.pauseBefore, dial].filter(Boolean).join('. ') || null;
    if (last && !before) {
      const passes = [...last.passes, pass];
      parts[parts.length - 1] = { ...last, passes, exposureMm: exposureOf(passes) };
    } else {
      parts.push({ passes: [pass], before, exposureMm: exposureOf([pass]) });
    }
  }
  return parts;
}

/** What the blade is set to: a crease tool has no exposure. */
function exposureOf(passes: readonly Pass[]): number {
  return passes.find(({ role }) => role !== 'crease')?.values.exposureMm ?? 0;
}
