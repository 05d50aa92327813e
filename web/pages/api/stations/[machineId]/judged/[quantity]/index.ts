import { getJudged, postJudged } from '#web/endpoints/judgedPieces.ts';

export const GET = getJudged.serve;
export const POST = postJudged.serve;
