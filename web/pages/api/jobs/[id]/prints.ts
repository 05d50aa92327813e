import { postPrint } from '#web/endpoints/printJob.ts';

export const POST = postPrint.serve;
