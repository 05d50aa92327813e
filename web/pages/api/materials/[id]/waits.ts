import { getWaits, putWait } from '#web/endpoints/waits.ts';

export const GET = getWaits.serve;
export const PUT = putWait.serve;
