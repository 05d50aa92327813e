import { getLayered } from '#web/endpoints/jobFiles.ts';

export const GET = getLayered.serve;
