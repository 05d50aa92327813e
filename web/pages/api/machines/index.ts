import { getMachines, postMachine } from '#web/endpoints/machines.ts';

export const GET = getMachines.serve;
export const POST = postMachine.serve;
