import { putWaitRoute } from '#web/endpoints/waits.ts';

export const PUT = putWaitRoute.serve;
