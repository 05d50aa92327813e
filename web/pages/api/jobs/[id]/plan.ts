import { getPlan } from '#web/endpoints/jobs.ts';

export const GET = getPlan.serve;
