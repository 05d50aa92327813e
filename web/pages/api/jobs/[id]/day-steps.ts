import { getJobSteps } from '#web/endpoints/days.ts';

export const GET = getJobSteps.serve;
