import { getSettings, postSetting } from '#web/endpoints/settings.ts';

export const GET = getSettings.serve;
export const POST = postSetting.serve;
