import { getLogCsv } from '#web/endpoints/log.ts';

export const GET = getLogCsv.serve;
