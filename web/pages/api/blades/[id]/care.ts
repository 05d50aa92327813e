import { postBladeCare } from '#web/endpoints/tools.ts';

export const POST = postBladeCare.serve;
