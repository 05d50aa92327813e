import { postDriftAnswer } from '#web/endpoints/drift.ts';

export const POST = postDriftAnswer.serve;
