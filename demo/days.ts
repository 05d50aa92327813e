export const DAY_MS = 86_400_000;
export const MINUTE_MS = 60_000;
export const OPENING_HOUR = 8;

/** A moment in the working hours of a day so many days ago, another one for every day. */
export function daysBefore(now: Date, days: number): Date {
  const midnight = Math.floor(now.getTime() / DAY_MS) * DAY_MS - days * DAY_MS;
  return new Date(midnight + OPENING_HOUR * 60 * MINUTE_MS + ((days * 97) % 440) * MINUTE_MS);
}
