/** Minutes and seconds, or hours and minutes. @example formatDuration(83) // '1 min 23 s' */
export function formatDuration(seconds: number): string {
  const whole = Math.round(seconds);
  if (whole < 60) return `${whole} s`;
  if (whole < 3600) return `${Math.floor(whole / 60)} min ${whole % 60} s`;
  return `${Math.floor(whole / 3600)} h ${Math.floor((whole % 3600) / 60)} min`;
}

/** The zone of the workshop: on the screen it stands in the page, on the server with the request. */
let zoneOfServer = 'UTC';

/** Tells the server's side which zone pages are written in. */
export function setServerZone(zone: string): void {
  zoneOfServer = zone;
}

function zoneNow(): string {
  if (typeof document === 'undefined') return zoneOfServer;
  return document.documentElement.dataset['timeZone'] ?? zoneOfServer;
}

const formats = new Map<string, Intl.DateTimeFormat>();

function formatIn(parts: 'day' | 'moment'): Intl.DateTimeFormat {
  const timeZone = zoneNow();
  const key = `${parts} ${timeZone}`;
  const clock = parts === 'moment' ? ({ hour: '2-digit', minute: '2-digit' } as const) : {};
  const format =
    formats.get(key) ??
    new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', ...clock, timeZone });
  formats.set(key, format);
  return format;
}

/** A day of the workshop as people write it. @example formatDay('2026-11-12T10:00:00Z') // '12 Nov' */
export function formatDay(iso: string): string {
  return formatIn('day').format(new Date(iso));
}

/** Day and time by the clock of the workshop: the same words on server and screen. */
export function formatMoment(iso: string): string {
  return formatIn('moment').format(new Date(iso));
}
