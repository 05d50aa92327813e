import { listDialledOnce, numberCuts, type PanelCut } from '#core/passes/panelCuts.ts';
import type { Pass } from '#core/passes/plan.ts';
import type { Carried, SeatUse } from '#core/station/machine.ts';

/** Passes that run without a hand in between: one machine file. */
export interface Part {
  readonly passes: readonly Pass[];
  /** What hands must do before it; `null` for a first part with nothing to do. */
  readonly before: string | null;
  /** The part of it that is not dialling. */
  readonly pause: string | null;
  /** What is dialled at the panel before it. */
  readonly dials: readonly PanelCut[];
  readonly exposureMm: number;
  /** Whether hands set the exposure before it; otherwise it stays as it is. */
  readonly setsExposure: boolean;
  /** What sits in each tool seat while it is cut. */
  readonly fitted: readonly SeatUse[];
}

/**
 * Splits a plan where hands are needed: at every pause, and where numbers that no file carries must be dialled anew. A
 * panel that holds several numbered cuts is dialled once, and the file chooses among them.
 *
 * @param panelCuts how many numbered cuts the panel holds; 1 where its language knows none
 * @example splitParts(plan.passes, { force: false, speed: false }).length // 2
 */
export function splitParts(passes: readonly Pass[], carries: Carried, panelCuts = 1): readonly Part[] {
  const isCarried = carries.force && carries.speed;
  const numbered = isCarried ? [] : numberCuts(passes, carries, panelCuts);
  const once = listDialledOnce(numbered);
  const parts: Part[] = [];
  passes.forEach((pass, index) => {
    const dials = index === 0 ? once : numbered[index]?.isDialledAnew ? [numbered[index].cut] : [];
    const numberedPass =
      panelCuts > 1 && numbered[index] ? { ...pass, panelCut: numbered[index].cut.number } : pass;
    const pause = pass.pauseBefore;
    const before = [pause, wordDials(dials, panelCuts > 1)].filter(Boolean).join('. ') || null;
    const last = parts.at(-1);
    if (last && !before) parts[parts.length - 1] = partOf([...last.passes, numberedPass], last);
    else parts.push(partOf([numberedPass], { before, pause, dials }));
  });
  return parts;
}

function partOf(
  passes: readonly Pass[],
  { before, pause, dials }: Pick<Part, 'before' | 'pause' | 'dials'>,
): Part {
  return {
    passes,
    before,
    pause,
    dials,
    exposureMm: exposureOf(passes),
    setsExposure: passes.some(({ setsExposure }) => setsExposure),
    fitted: passes[0]?.fitted ?? [],
  };
}

/**
 * What hands set at the panel, in words; `null` where they set nothing.
 *
 * @example wordDials([], false) // null
 */
export function wordDials(dials: readonly PanelCut[], isNumbered: boolean): string | null {
  if (dials.length === 0) return null;
  const each = dials.map((cut) => `${isNumbered ? `cut ${cut.number}: ` : ''}${wordPanelCut(cut)}`);
  return `Dial ${each.join('; ')} at the panel`;
}

/**
 * What is dialled for a numbered cut, in words.
 *
 * @example wordPanelCut({ number: 1, roles: ['kiss'], seatName: null, force: 14, speed: 10, tabs: null }) // 'force 14 and speed 10'
 */
export function wordPanelCut({ seatName, force, speed, tabs }: PanelCut): string {
  const words = [
    ...(seatName === null ? [] : [`the ${seatName} seat`]),
    ...(force === null ? [] : [`force ${force}`]),
    ...(speed === null ? [] : [`speed ${speed}`]),
    ...(tabs ? [`tabs of ${tabs.tabLengthMm} mm after ${tabs.cutLengthMm} mm of cut`] : []),
  ];
  return words.length > 1 ? `${words.slice(0, -1).join(', ')} and ${words.at(-1)}` : words.join('');
}

/** What the blade is set to: a crease tool has no exposure. */
function exposureOf(passes: readonly Pass[]): number {
  return passes.find(({ role }) => role !== 'crease')?.values.exposureMm ?? 0;
}
