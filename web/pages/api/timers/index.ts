import { getTimers, postTimer } from '#web/endpoints/waits.ts';

export const GET = getTimers.serve;
export const POST = postTimer.serve;
