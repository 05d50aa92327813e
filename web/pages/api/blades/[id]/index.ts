import { patchBlade } from '#web/endpoints/tools.ts';

export const PATCH = patchBlade.serve;
