import { getCornerPiece } from '#web/endpoints/prints.ts';

export const GET = getCornerPiece.serve;
