import { getPrintSheet } from '#web/endpoints/jobFiles.ts';

export const GET = getPrintSheet.serve;
