import { getMachines, postMachine } from '#web/endpoints/stations.ts';

export const GET = getMachines.serve;
export const POST = postMachine.serve;
