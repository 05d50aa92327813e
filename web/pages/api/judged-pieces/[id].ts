import { deleteJudged } from '#web/endpoints/judgedPieces.ts';

export const DELETE = deleteJudged.serve;
