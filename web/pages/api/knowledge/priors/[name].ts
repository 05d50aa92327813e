import { putPrior, deletePrior } from '#web/endpoints/knowledge.ts';

export const PUT = putPrior.serve;
export const DELETE = deletePrior.serve;
