import { currentWriting } from '#web/islands/shared/units.ts';

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

const CLOCK = { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' } as const;
const DAY = { day: 'numeric', month: 'short' } as const;
/** What is written of a moment. */
const PARTS = {
  day: DAY,
  moment: { ...DAY, ...CLOCK },
  time: CLOCK,
  clock: { ...CLOCK, second: '2-digit' },
  longDay: { weekday: 'long', day: 'numeric', month: 'long' },
  date: { day: 'numeric', month: 'long', year: 'numeric' },
} as const;

const formats = new Map<string, Intl.DateTimeFormat>();

function write(parts: keyof typeof PARTS, iso: string, timeZone = zoneNow()): string {
  const region = currentWriting().isMonthFirst ? 'en-US' : 'en-GB';
  const key = `${parts} ${timeZone} ${region}`;
  const format = formats.get(key) ?? new Intl.DateTimeFormat(region, { ...PARTS[parts], timeZone });
  formats.set(key, format);
  return format.format(new Date(iso));
}

/** A day of the workshop as people write it. @example formatDay('2026-11-12T10:00:00Z') // '12 Nov' */
export function formatDay(iso: string): string {
  return write('day', iso);
}

/** Day and time by the clock of the workshop: the same words on server and screen. */
export function formatMoment(iso: string): string {
  return write('moment', iso);
}

/** When something ends: the time, and the day where it is not today's. */
export function formatEnd(iso: string, now: Date): string {
  return write(write('day', iso) === write('day', now.toISOString()) ? 'time' : 'moment', iso);
}

/** Hours, minutes and seconds by the clock of the workshop. */
export function formatClock(iso: string): string {
  return write('clock', iso);
}

/** A date with its year. @example formatDate('2026-11-12T10:00:00Z') // '12 November 2026' */
export function formatDate(iso: string): string {
  return write('date', iso);
}

/** A date, whatever the zone, with the day of its week. @param day ISO date @example formatLongDay('2026-11-12') // 'Thursday 12 November' */
export function formatLongDay(day: string): string {
  return write('longDay', `${day}T12:00:00Z`, 'UTC');
}
