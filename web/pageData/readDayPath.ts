import { formatLongDay } from '#web/islands/shared/formatTime.ts';
import { addDays, clockMinutes, dayOf } from '#core/time/workshopTime.ts';

/** What the page of a day is asked for. */
export interface DayPath {
  /** ISO date. */
  readonly day: string;
  readonly title: string;
  readonly before: string;
  readonly after: string;
  /** Minutes after midnight when it is today, else 0. */
  readonly minutesNow: number;
}

/** Which day of the workshop a path means; today for none, or for what is no date. */
export function readDayPath(text: string | undefined, now: Date, zone: string): DayPath {
  const today = dayOf(now, zone);
  const isDate = /^\d{4}-\d{2}-\d{2}$/.test(text ?? '') && !Number.isNaN(Date.parse(text ?? ''));
  const day = isDate && text !== undefined ? text : today;
  const words = formatLongDay(day);
  return {
    day,
    title: day === today ? `Today, ${words}` : words,
    before: addDays(day, -1),
    after: addDays(day, 1),
    minutesNow: day === today ? clockMinutes(now, zone) : 0,
  };
}
