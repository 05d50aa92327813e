import { getWays } from '#web/endpoints/dialInReplies.ts';

export const GET = getWays.serve;
