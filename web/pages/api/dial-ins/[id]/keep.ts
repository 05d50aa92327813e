import { postKeep } from '#web/endpoints/keepDialIn.ts';

export const POST = postKeep.serve;
