import { postCopy } from '#web/endpoints/settingActions.ts';

export const POST = postCopy.serve;
