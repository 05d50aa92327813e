import { getJobFile } from '#web/endpoints/jobFiles.ts';

export const GET = getJobFile.serve;
