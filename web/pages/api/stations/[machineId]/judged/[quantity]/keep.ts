import { postKeepJudged } from '#web/endpoints/judgedPieces.ts';

export const POST = postKeepJudged.serve;
