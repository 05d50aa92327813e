import { getJobs, postJob } from '#web/endpoints/jobs.ts';

export const GET = getJobs.serve;
export const POST = postJob.serve;
