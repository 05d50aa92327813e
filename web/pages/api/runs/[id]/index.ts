import { getRun } from '#web/endpoints/runs.ts';

export const GET = getRun.serve;
