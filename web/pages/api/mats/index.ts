import { postMat } from '#web/endpoints/tools.ts';

export const POST = postMat.serve;
