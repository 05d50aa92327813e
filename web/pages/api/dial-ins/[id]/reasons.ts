import { getReasons } from '#web/endpoints/dialInReplies.ts';

export const GET = getReasons.serve;
