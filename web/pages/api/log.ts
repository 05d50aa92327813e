import { getLog } from '#web/endpoints/log.ts';

export const GET = getLog.serve;
