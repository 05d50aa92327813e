import type { DayStep } from '#core/prep/dayPlan.ts';
import { WAIT_WORDS, type Wait } from '#core/prep/waits.ts';

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
  /** Between printing and cutting, in their order. */
  readonly waits: readonly Wait[];
}

export const PRINTER = 'printer';
export const HANDS = 'hands';

/** Minutes at the bench. Common practice, no source. */
const PRINT_START = 3;
const PRINT_SHEET = 1.5;
const LOAD_SHEET = 3;
const FINISH_SHEET = 5;

/**
 * The steps of a job on a day: print, waits, cut, weed and pack.
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
  return [
    ...(job.isPrinted
      ? [step('print', `print ${sheets}`, PRINTER, PRINT_START + PRINT_SHEET * job.sheets)]
      : []),
    ...job.waits.map(({ kind, minutes }, index) =>
      step(`wait-${index + 1}-${kind}`, WAIT_WORDS[kind], null, minutes),
    ),
    step('cut', `cut ${sheets}`, job.machineName, job.sheets * (LOAD_SHEET + job.cutSeconds / 60), job.setUp),
    step('finish', 'weed and pack', HANDS, FINISH_SHEET * job.sheets),
  ];
}
