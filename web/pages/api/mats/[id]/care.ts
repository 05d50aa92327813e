import { postMatCare } from '#web/endpoints/tools.ts';

export const POST = postMatCare.serve;
