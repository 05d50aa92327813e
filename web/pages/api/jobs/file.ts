import { postJobFile } from '#web/endpoints/jobFiles.ts';

export const POST = postJobFile.serve;
