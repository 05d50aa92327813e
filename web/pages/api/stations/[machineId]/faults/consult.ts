import { postConsult } from '#web/endpoints/faults.ts';

export const POST = postConsult.serve;
