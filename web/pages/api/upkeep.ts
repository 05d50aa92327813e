import { getUpkeep } from '#web/endpoints/stations.ts';

export const GET = getUpkeep.serve;
