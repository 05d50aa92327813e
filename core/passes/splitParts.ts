import type { Pass } from '#core/passes/plan.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Carried, SeatUse } from '#core/station/machine.ts';

/** Passes that run without a hand in between: one machine file. */
export interface Part {
  readonly passes: readonly Pass[];
  /** What hands must do before it; `null` for a first part with nothing to do. */
  readonly before: string | null;
  readonly exposureMm: number;
  /** Whether hands set the exposure before it; otherwise it stays as it is. */
  readonly setsExposure: boolean;
  /** What sits in each tool seat while it is cut. */
  readonly fitted: readonly SeatUse[];
}

/**
 * Splits a plan where hands are needed: at every pause, and before every pass whose force or speed no file carries.
 *
 * @example splitParts(plan.passes, { force: false, speed: false }).length // 2
 */
export function splitParts(passes: readonly Pass[], carries: Carried): readonly Part[] {
  const parts: Part[] = [];
  for (const pass of passes) {
    const last = parts.at(-1);
    const before = [pass.pauseBefore, dialWords(pass.values, carries)].filter(Boolean).join('. ') || null;
    if (last && !before) {
      const passes = [...last.passes, pass];
      parts[parts.length - 1] = partOf(passes, last.before);
    } else {
      parts.push(partOf([pass], before));
    }
  }
  return parts;
}

function partOf(passes: readonly Pass[], before: string | null): Part {
  return {
    passes,
    before,
    exposureMm: exposureOf(passes),
    setsExposure: passes.some(({ setsExposure }) => setsExposure),
    fitted: passes[0]?.fitted ?? [],
  };
}

/** What hands set before a pass, or `null` where the file carries it all. */
function dialWords({ force, speed }: SettingValues, carries: Carried): string | null {
  const words = [carries.force ? '' : `force ${force}`, carries.speed ? '' : `speed ${speed}`].filter(
    Boolean,
  );
  return words.length === 0 ? null : `Dial ${words.join(' and ')} at the panel`;
}

/** What the blade is set to: a crease tool has no exposure. */
function exposureOf(passes: readonly Pass[]): number {
  return passes.find(({ role }) => role !== 'crease')?.values.exposureMm ?? 0;
}
