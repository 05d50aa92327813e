import { getMachineFile } from '#web/endpoints/jobFiles.ts';

export const GET = getMachineFile.serve;
