const DAY_MS = 86_400_000;

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

/** Which day a path means; today for none, or for what is no date. */
export function readDayPath(text: string | undefined, now: Date): DayPath {
  const today = isoOf(now);
  const asked = /^\d{4}-\d{2}-\d{2}$/.test(text ?? '') && !Number.isNaN(Date.parse(text ?? '')) ? text : null;
  const day = asked ?? today;
  const at = Date.parse(`${day}T12:00:00`);
  const words = new Date(at).toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' });
  return {
    day,
    title: day === today ? `Today, ${words}` : words,
    before: isoOf(new Date(at - DAY_MS)),
    after: isoOf(new Date(at + DAY_MS)),
    minutesNow: day === today ? now.getHours() * 60 + now.getMinutes() : 0,
  };
}

function isoOf(date: Date): string {
  const two = (value: number) => String(value).padStart(2, '0');
  return `${date.getFullYear()}-${two(date.getMonth() + 1)}-${two(date.getDate())}`;
}
