import { postUnload } from '#web/endpoints/runs.ts';

export const POST = postUnload.serve;
