import { getRunHistory } from '#web/endpoints/runs.ts';

export const GET = getRunHistory.serve;
