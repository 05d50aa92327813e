import { postPause } from '#web/endpoints/runs.ts';

export const POST = postPause.serve;
