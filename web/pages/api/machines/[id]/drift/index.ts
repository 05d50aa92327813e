import { getDrift } from '#web/endpoints/drift.ts';

export const GET = getDrift.serve;
