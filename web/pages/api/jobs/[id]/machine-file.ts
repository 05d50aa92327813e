import { getMachineFile } from '#web/endpoints/jobs.ts';

export const GET = getMachineFile.serve;
