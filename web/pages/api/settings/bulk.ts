import { postBulk } from '#web/endpoints/settingActions.ts';

export const POST = postBulk.serve;
