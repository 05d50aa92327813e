import { getRunEvents } from '#web/endpoints/runs.ts';

export const GET = getRunEvents.serve;
