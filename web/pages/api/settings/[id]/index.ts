import { getSetting } from '#web/endpoints/settings.ts';

export const GET = getSetting.serve;
