import { getSource } from '#web/endpoints/jobs.ts';

export const GET = getSource.serve;
