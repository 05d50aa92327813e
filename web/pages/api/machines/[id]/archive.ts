import { postMachineArchive } from '#web/endpoints/machines.ts';

export const POST = postMachineArchive.serve;
