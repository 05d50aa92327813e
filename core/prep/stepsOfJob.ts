import type { DayStep } from '#core/prep/dayPlan.ts';
import { placeOfWait, WAIT_WORDS, type Wait, type WaitPlace } from '#core/prep/waits.ts';

/** What a job asks of a day. */
export interface JobForDay {
  readonly id: number;
  readonly sheets: number;
  readonly isPrinted: boolean;
  readonly machineName: string;
  /** Material and blade: what the machine is set up for. */
  readonly setUp: string;
  /** Cutting time of one sheet, s. */
  readonly cutSeconds: number;
  /** All that it waits for, in their order; each knows what it comes before. */
  readonly waits: readonly Wait[];
  /** A film is laid over the print by hand, before it settles. */
  readonly isLaminated?: boolean | undefined;
  /** How long it is pressed on, s; left out for what is not pressed. */
  readonly pressSeconds?: number | undefined;
}

export const PRINTER = 'printer';
export const HANDS = 'hands';

/** Minutes at the bench. Common practice, no source. */
const PRINT_START = 3;
const PRINT_SHEET = 1.5;
const LOAD_SHEET = 3;
const FINISH_SHEET = 5;
const LAMINATE_SHEET = 4;
const WEED_SHEET = 5;
const MASK_SHEET = 2;
const PRESS_SHEET = 2;

/**
 * The steps of a job on a day: print, waits, laminate, cut, weed and pack; what is pressed on is masked and pressed instead,
 * each after its rest.
 *
 * @example stepsOfJob({ id: 1, sheets: 1, isPrinted: true, machineName: 'Skua', setUp: 'film', cutSeconds: 60, waits: [] }).map((step) => step.place) // ['printer', 'Skua', 'hands']
 */
export function stepsOfJob(job: JobForDay): readonly DayStep[] {
  const step = (name: string, words: string, place: string | null, minutes: number, setUp = ''): DayStep => ({
    id: `${job.id}/${name}`,
    words,
    place,
    minutes: Math.max(1, Math.round(minutes)),
    setUp,
    notBefore: 0,
    done: null,
  });
  const sheets = `${job.sheets} ${job.sheets === 1 ? 'sheet' : 'sheets'}`;
  const hand = (name: string, words: string, minutes: number) =>
    step(name, words, HANDS, minutes * job.sheets);
  const waits = (place: WaitPlace) =>
    job.waits.flatMap(({ kind, minutes }, index) =>
      placeOfWait(kind) === place ? [step(`wait-${index + 1}-${kind}`, WAIT_WORDS[kind], null, minutes)] : [],
    );
  const laminate = hand('laminate', `laminate ${sheets}`, LAMINATE_SHEET);
  const hasSettling = job.waits.some(({ kind }) => kind === 'laminateSettles');
  const finish =
    job.pressSeconds === undefined
      ? [hand('finish', 'weed and pack', FINISH_SHEET), ...waits('mask'), ...waits('wash')]
      : [
          hand('weed', `weed ${sheets}`, WEED_SHEET),
          ...waits('mask'),
          hand('mask', `mask ${sheets}`, MASK_SHEET),
          hand('press', `press ${sheets}`, PRESS_SHEET + job.pressSeconds / 60),
          ...waits('wash'),
        ];
  return [
    ...(job.isPrinted
      ? [step('print', `print ${sheets}`, PRINTER, PRINT_START + PRINT_SHEET * job.sheets)]
      : []),
    ...waits('cut').flatMap((wait) => (wait.id.endsWith('laminateSettles') ? [laminate, wait] : [wait])),
    ...(job.isLaminated && !hasSettling ? [laminate] : []),
    step('cut', `cut ${sheets}`, job.machineName, job.sheets * (LOAD_SHEET + job.cutSeconds / 60), job.setUp),
    ...finish,
  ];
}
