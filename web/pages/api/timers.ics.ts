import { getTimerCalendar } from '#web/endpoints/waits.ts';

export const GET = getTimerCalendar.serve;
