import { postContinue } from '#web/endpoints/runs.ts';

export const POST = postContinue.serve;
