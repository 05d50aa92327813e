import { getStation, patchStation } from '#web/endpoints/stations.ts';

export const GET = getStation.serve;
export const PATCH = patchStation.serve;
