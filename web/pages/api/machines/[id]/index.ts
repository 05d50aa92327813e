import { putMachine } from '#web/endpoints/machines.ts';

export const PUT = putMachine.serve;
