import { getDayCalendar } from '#web/endpoints/days.ts';

export const GET = getDayCalendar.serve;
