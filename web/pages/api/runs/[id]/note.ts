import { putNote } from '#web/endpoints/runs.ts';

export const PUT = putNote.serve;
