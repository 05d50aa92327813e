import { patchMat } from '#web/endpoints/tools.ts';

export const PATCH = patchMat.serve;
