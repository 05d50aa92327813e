import { getDialIn, patchDialIn } from '#web/endpoints/dialIns.ts';

export const GET = getDialIn.serve;
export const PATCH = patchDialIn.serve;
