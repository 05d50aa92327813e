import { describe, expect, it } from 'vitest';
import { addDays, clockMinutes, dayOf, isTimeZone, momentAt, startOfDay } from '#core/time/workshopTime.ts';

/** Rules of summer time: Directive 2000/84/EC, the last Sundays of March and October at 01:00 UTC. */
const BERLIN = 'Europe/Berlin';
const iso = (date: Date) => date.toISOString();

describe('a workshop in Berlin', () => {
  it.each([
    ['the day before summer time', '2027-03-27', '2027-03-27T07:00:00.000Z'],
    ['the Sunday summer time begins', '2027-03-28', '2027-03-28T06:00:00.000Z'],
    ['the day before it ends', '2027-10-30', '2027-10-30T06:00:00.000Z'],
    ['the Sunday it ends', '2027-10-31', '2027-10-31T07:00:00.000Z'],
  ])('begins at eight on %s', (_, day, moment) => {
    expect(iso(momentAt(day, 480, BERLIN))).toBe(moment);
    expect(clockMinutes(moment, BERLIN)).toBe(480);
    expect(dayOf(moment, BERLIN)).toBe(day);
  });

  it('has days of 23 and 25 hours', () => {
    const hours = (day: string) =>
      (startOfDay(addDays(day, 1), BERLIN).getTime() - startOfDay(day, BERLIN).getTime()) / 3_600_000;
    expect(['2027-03-27', '2027-03-28', '2027-10-31'].map(hours)).toEqual([24, 23, 25]);
  });

  it('takes the next hour for one that is left out, and the first of one that comes twice', () => {
    expect(iso(momentAt('2027-03-28', 150, BERLIN))).toBe('2027-03-28T01:30:00.000Z');
    expect(iso(momentAt('2027-10-31', 150, BERLIN))).toBe('2027-10-31T00:30:00.000Z');
  });

  it('is a day ahead of UTC before midnight, and a plan may run past it', () => {
    expect(dayOf('2026-12-31T23:30:00Z', BERLIN)).toBe('2027-01-01');
    expect(dayOf(new Date('2026-12-31T22:30:00Z'), BERLIN)).toBe('2026-12-31');
    expect(iso(momentAt('2026-12-31', 25 * 60, BERLIN))).toBe('2027-01-01T00:00:00.000Z');
  });
});

describe('zones and days', () => {
  it('are told from what is none', () => {
    expect(['Europe/Berlin', 'UTC', 'Asia/Kathmandu'].every(isTimeZone)).toBe(true);
    expect(['', 'Mars/Base', 'berlin'].some(isTimeZone)).toBe(false);
    expect(() => startOfDay('2026-99-99', BERLIN)).toThrow(RangeError);
    expect(addDays('2028-02-28', 1)).toBe('2028-02-29');
  });

  it('of a quarter of an hour are zones as well', () => {
    expect(iso(startOfDay('2026-11-27', 'Asia/Kathmandu'))).toBe('2026-11-26T18:15:00.000Z');
  });
});
