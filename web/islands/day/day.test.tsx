import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { layOutDay, type DayJob } from '#core/prep/dayPlan.ts';
import { readDayPath } from '#web/pageData/readDayPath.ts';
import { writeCalendar } from '#web/endpoints/workshop/writeCalendar.ts';
import { clockOf, readClock } from '#web/islands/day/clock.ts';
import { DayChart } from '#web/islands/day/DayChart.tsx';
import { StepPanel } from '#web/islands/day/StepPanel.tsx';
import type { DayDesk } from '#web/islands/day/useDay.ts';

const step = (place: string | null, minutes: number, words: string, setUp = '') => ({
  id: words,
  words,
  place,
  minutes,
  setUp,
  notBefore: 0,
  done: null,
});
const jobs: readonly DayJob[] = [
  {
    id: 'job-1',
    words: 'Gulls',
    steps: [step('printer', 10, 'print'), step(null, 30, 'ink dries'), step('Plover', 20, 'cut', 'film')],
  },
  { id: 'job-2', words: 'Tides', steps: [step('Plover', 15, 'cut', 'card')] },
];
const sequence = [0, 1, 0, 0];
const desk = {
  shown: { jobs, sequence, beginsAt: 480 },
  plan: layOutDay({ jobs, changeMinutes: 6, now: 0, setUps: {} }, sequence),
  error: null,
  isOrdering: false,
  costMinutes: 0,
} as unknown as DayDesk;
const words = (markup: string) => markup.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');

describe('the day', () => {
  it('has a row for every place, waits last, and says each bar’s times and change to those who cannot see it', () => {
    const markup = renderToStaticMarkup(
      <DayChart desk={desk} chosen={null} nowMinutes={0} onChoose={() => undefined} />,
    );
    const rows = [...markup.matchAll(/leading-tight border-t border-hairline">([^<]+)</g)].map(
      (match) => match[1],
    );
    expect(rows).toEqual(['printer', 'Plover', 'waits']);
    expect(markup).toContain('aria-label="Gulls: print, 08:00 to 08:10"');
    expect(markup).toMatch(/aria-label="Tides: cut, 08:06 to 08:21, after 6 min of change"/);
    expect(markup).toMatch(/repeating-linear-gradient/);
  });

  it('offers for the chosen step what can be done with it', () => {
    const draw = (own: DayDesk) =>
      words(renderToStaticMarkup(<StepPanel desk={own} at={{ jobIndex: 0, stepIndex: 2 }} nowMinutes={0} />));
    expect(draw(desk)).toMatch(
      /Gulls: cut .*set up for film .*Done .*Takes 15 min longer .*Take Gulls off the day/,
    );
    const done = jobs.map((job) => ({
      ...job,
      steps: job.steps.map((one) => ({ ...one, done: { from: 0, to: 5 } })),
    }));
    const over = {
      ...desk,
      shown: { ...desk.shown, jobs: done },
      plan: layOutDay({ jobs: done, changeMinutes: 6, now: 0, setUps: {} }, []),
    } as DayDesk;
    expect(draw(over)).toMatch(/Not done after all/);
    expect(
      renderToStaticMarkup(<StepPanel desk={desk} at={{ jobIndex: 7, stepIndex: 0 }} nowMinutes={0} />),
    ).toBe('');
  });

  it('tells the time, beyond midnight too, and reads it back', () => {
    expect(clockOf(485)).toBe('08:05');
    expect(clockOf(24 * 60 + 30)).toBe('00:30');
    expect(readClock('8:05')).toBe(485);
    expect(readClock('soon')).toBeNull();
  });

  it('is today unless a path names another day', () => {
    const now = new Date('2026-03-01T08:30:00Z');
    expect(readDayPath(undefined, now, 'Europe/Berlin')).toMatchObject({
      day: '2026-03-01',
      minutesNow: 570,
      after: '2026-03-02',
    });
    expect(readDayPath('nonsense', now, 'Europe/Berlin').day).toBe('2026-03-01');
    expect(readDayPath('2026-02-30x', now, 'Europe/Berlin').day).toBe('2026-03-01');
    const other = readDayPath('2026-12-31', now, 'Europe/Berlin');
    expect(other).toMatchObject({ minutesNow: 0, before: '2026-12-30', after: '2027-01-01' });
    expect(other.title).toBe('Thursday 31 December');
  });
});

describe('a calendar file', () => {
  it('holds every event with its times in UTC, and an alarm at the end where one is wanted', () => {
    const event = { id: 'a', words: 'Gulls; ink, dries', from: new Date('2026-03-01T10:00:00Z') };
    const text = writeCalendar('Waits', [
      { ...event, to: new Date('2026-03-01T10:30:00Z'), hasAlarm: true },
      { ...event, id: 'b', to: new Date('2026-03-01T10:05:00Z'), hasAlarm: false },
    ]);
    expect(text.match(/BEGIN:VEVENT/g)).toHaveLength(2);
    expect(text.match(/BEGIN:VALARM/g)).toHaveLength(1);
    expect(text).toMatch(/DTSTART:20260301T100000Z/);
    expect(text).toMatch(/TRIGGER;VALUE=DATE-TIME:20260301T103000Z/);
    // Commas and semicolons are escaped, RFC 5545.
    expect(text).toContain('SUMMARY:Gulls\\; ink\\, dries');
  });
});
