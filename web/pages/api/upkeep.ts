import { getUpkeep } from '#web/endpoints/tools.ts';

export const GET = getUpkeep.serve;
