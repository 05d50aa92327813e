import { getDialIns, postDialIn } from '#web/endpoints/dialIns.ts';

export const GET = getDialIns.serve;
export const POST = postDialIn.serve;
