import { getRunSheet } from '#web/endpoints/jobFiles.ts';

export const GET = getRunSheet.serve;
