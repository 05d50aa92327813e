import { DateTime, IANAZone } from 'luxon';

/** Whether a name stands for a time zone, as the IANA database names them. @example isTimeZone('Europe/Berlin') // true */
export function isTimeZone(name: string): boolean {
  return IANAZone.isValidZone(name);
}

/** The day that a moment falls on in a zone, ISO date. @example dayOf('2027-03-27T23:30:00Z', 'Europe/Berlin') // '2027-03-28' */
export function dayOf(moment: Date | string, zone: string): string {
  return at(moment, zone).toISODate() ?? '';
}

/**
 * What a clock on the wall shows at a moment, minutes after midnight: 600 at ten o'clock, also on short and long days.
 *
 * @example clockMinutes('2027-03-28T06:00:00Z', 'Europe/Berlin') // 480
 */
export function clockMinutes(moment: Date | string, zone: string): number {
  const { hour, minute } = at(moment, zone);
  return hour * 60 + minute;
}

/**
 * The moment at which a clock on the wall shows so many minutes after midnight. An hour that a day leaves out is the one
 * after it; of one that comes twice it is the first.
 *
 * @param day ISO date
 * @throws RangeError for what is no date
 * @example momentAt('2027-03-28', 480, 'Europe/Berlin').toISOString() // '2027-03-28T06:00:00.000Z'
 */
export function momentAt(day: string, minutes: number, zone: string): Date {
  const midnight = DateTime.fromISO(day, { zone });
  if (!midnight.isValid) throw new RangeError(`"${day}" is no date`);
  const days = Math.floor(minutes / 1440);
  const rest = minutes - days * 1440;
  const clock = { hour: Math.floor(rest / 60), minute: Math.floor(rest % 60) };
  return midnight.plus({ days }).set(clock).toJSDate();
}

/**
 * When a day begins. @throws RangeError for what is no date
 * @example startOfDay('2027-03-28', 'Europe/Berlin').toISOString() // '2027-03-27T23:00:00.000Z'
 */
export function startOfDay(day: string, zone: string): Date {
  const midnight = DateTime.fromISO(day, { zone });
  if (!midnight.isValid) throw new RangeError(`"${day}" is no date`);
  return midnight.startOf('day').toJSDate();
}

/** A day so many days later, or earlier. @example addDays('2027-03-31', 1) // '2027-04-01' */
export function addDays(day: string, count: number): string {
  return DateTime.fromISO(day, { zone: 'utc' }).plus({ days: count }).toISODate() ?? day;
}

function at(moment: Date | string, zone: string): DateTime {
  return typeof moment === 'string'
    ? DateTime.fromISO(moment, { zone })
    : DateTime.fromJSDate(moment, { zone });
}
