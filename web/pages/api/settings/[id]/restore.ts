import { postRestore } from '#web/endpoints/settingActions.ts';

export const POST = postRestore.serve;
