import { getSettings } from '#web/endpoints/settings.ts';

export const GET = getSettings.serve;
