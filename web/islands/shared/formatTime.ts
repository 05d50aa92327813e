/** Minutes and seconds, or hours and minutes. @example formatDuration(83) // '1 min 23 s' */
export function formatDuration(seconds: number): string {
  const whole = Math.round(seconds);
  if (whole < 60) return `${whole} s`;
  if (whole < 3600) return `${Math.floor(whole / 60)} min ${whole % 60} s`;
  return `${Math.floor(whole / 3600)} h ${Math.floor((whole % 3600) / 60)} min`;
}

const DAY = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' });
const DAY_AND_TIME = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
  timeZone: 'UTC',
});

/** A day as people write it. @example formatDay('2026-11-12T10:00:00Z') // '12 Nov' */
export function formatDay(iso: string): string {
  return DAY.format(new Date(iso));
}

/** Day and time, in UTC: the same words on server and screen. */
export function formatMoment(iso: string): string {
  return DAY_AND_TIME.format(new Date(iso));
}
