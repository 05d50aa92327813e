import { getJob, patchJob } from '#web/endpoints/jobs.ts';

export const GET = getJob.serve;
export const PATCH = patchJob.serve;
