import { getEffort } from '#web/endpoints/dialInReplies.ts';

export const GET = getEffort.serve;
