import ical, { ICalAlarmType } from 'ical-generator';

/** Something in a calendar. */
export interface CalendarEvent {
  readonly id: string;
  readonly words: string;
  readonly from: Date;
  readonly to: Date;
  /** Rings at its end. */
  readonly hasAlarm: boolean;
}

export const CALENDAR_TYPE = 'text/calendar; charset=utf-8';

/** Events as an iCalendar file. */
export function writeCalendar(name: string, events: readonly CalendarEvent[]): string {
  const calendar = ical({ name: `Pale Feather: ${name}`, prodId: '//pale-feather//bench//EN' });
  for (const { id, words, from, to, hasAlarm } of events) {
    const event = calendar.createEvent({ id: `${id}@pale-feather`, summary: words, start: from, end: to });
    // A moment of its own: counted in minutes it would hang on the beginning of the event.
    if (hasAlarm) event.createAlarm({ type: ICalAlarmType.display, trigger: to, description: words });
  }
  return calendar.toString();
}
