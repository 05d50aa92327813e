import { postUndo } from '#web/endpoints/audit.ts';

export const POST = postUndo.serve;
