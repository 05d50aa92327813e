import { postRevision } from '#web/endpoints/answers.ts';

export const POST = postRevision.serve;
