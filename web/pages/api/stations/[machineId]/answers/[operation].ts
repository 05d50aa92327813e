import { getAnswer } from '#web/endpoints/settings.ts';

export const GET = getAnswer.serve;
