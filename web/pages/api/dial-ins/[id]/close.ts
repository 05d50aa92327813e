import { postClose } from '#web/endpoints/dialIns.ts';

export const POST = postClose.serve;
