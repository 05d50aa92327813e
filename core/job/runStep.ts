/** One thing to do, and why where that is not plain. */
export interface RunStep {
  readonly words: string;
  readonly reason: string;
  /** Big figures to set, with their units. */
  readonly figures: readonly (readonly [figure: string, unit: string])[];
}

/** Steps under a heading. */
export interface RunSection {
  readonly heading: string;
  readonly steps: readonly RunStep[];
}

/**
 * A step of a run sheet.
 *
 * @example makeStep('Wash it.').figures // []
 */
export function makeStep(words: string, reason = '', figures: RunStep['figures'] = []): RunStep {
  return { words, reason, figures };
}

/**
 * A section, or nothing where there is nothing to do.
 *
 * @example makeSection('Press', []) // []
 */
export function makeSection(heading: string, steps: readonly RunStep[]): readonly RunSection[] {
  return steps.length > 0 ? [{ heading, steps }] : [];
}

const MINUTES_A_DAY = 24 * 60;

/**
 * A length of time as big figures say it.
 *
 * @example figureOfMinutes(1440) // ['1', 'day']
 */
export function figureOfMinutes(minutes: number): readonly [figure: string, unit: string] {
  const of = (count: number, unit: string): readonly [string, string] => [
    String(Number(count.toFixed(1))),
    count === 1 ? unit : `${unit}s`,
  ];
  if (minutes >= MINUTES_A_DAY) return of(minutes / MINUTES_A_DAY, 'day');
  return minutes >= 120 ? of(minutes / 60, 'hour') : [String(Math.round(minutes)), 'min'];
}
