import { postArchive } from '#web/endpoints/settingActions.ts';

export const POST = postArchive.serve;
