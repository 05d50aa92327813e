import type { BenchAnswer, SettingSummary } from '#web/schemas/setting.ts';

/** What the Bench shows: answers from the threshold model, and what is kept for the other operations. */
export interface BenchAnswers {
  readonly kiss: BenchAnswer;
  readonly through: BenchAnswer;
  readonly others: readonly SettingSummary[];
}
