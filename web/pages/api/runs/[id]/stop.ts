import { postStop } from '#web/endpoints/runs.ts';

export const POST = postStop.serve;
