import { getPlan } from '#web/endpoints/jobPlan.ts';

export const GET = getPlan.serve;
