import { postRun } from '#web/endpoints/runs.ts';

export const POST = postRun.serve;
