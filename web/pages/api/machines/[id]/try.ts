import { postTry } from '#web/endpoints/machines.ts';

export const POST = postTry.serve;
