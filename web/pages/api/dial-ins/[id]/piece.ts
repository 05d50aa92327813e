import { getPiece } from '#web/endpoints/dialInReplies.ts';

export const GET = getPiece.serve;
