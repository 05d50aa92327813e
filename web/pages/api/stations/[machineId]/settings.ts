import { postRevision } from '#web/endpoints/settings.ts';

export const POST = postRevision.serve;
