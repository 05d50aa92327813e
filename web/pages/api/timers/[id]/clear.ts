import { postTimerClear } from '#web/endpoints/waits.ts';

export const POST = postTimerClear.serve;
