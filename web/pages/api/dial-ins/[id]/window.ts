import { getWindow } from '#web/endpoints/dialInReplies.ts';

export const GET = getWindow.serve;
