import { getAnswer } from '#web/endpoints/answers.ts';

export const GET = getAnswer.serve;
