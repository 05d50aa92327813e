import { getFaults, postFault } from '#web/endpoints/faults.ts';

export const GET = getFaults.serve;
export const POST = postFault.serve;
