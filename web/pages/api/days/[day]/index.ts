import { getDay, putDay } from '#web/endpoints/days.ts';

export const GET = getDay.serve;
export const PUT = putDay.serve;
