import { getTestPiece } from '#web/endpoints/jobFiles.ts';

export const GET = getTestPiece.serve;
