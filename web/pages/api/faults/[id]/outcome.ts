import { putFaultOutcome } from '#web/endpoints/faults.ts';

export const PUT = putFaultOutcome.serve;
