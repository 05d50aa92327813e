import { postRefit, deleteRefit } from '#web/endpoints/knowledge.ts';

export const POST = postRefit.serve;
export const DELETE = deleteRefit.serve;
