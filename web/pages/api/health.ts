import { getHealth } from '#web/endpoints/health.ts';

export const GET = getHealth.serve;
