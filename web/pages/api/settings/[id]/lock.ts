import { postLock } from '#web/endpoints/settingActions.ts';

export const POST = postLock.serve;
