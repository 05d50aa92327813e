import { postRepeat } from '#web/endpoints/runs.ts';

export const POST = postRepeat.serve;
