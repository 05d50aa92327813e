import { postBlade } from '#web/endpoints/tools.ts';

export const POST = postBlade.serve;
