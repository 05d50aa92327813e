import { getJudgedPiece } from '#web/endpoints/judgedPiece.ts';

export const GET = getJudgedPiece.serve;
