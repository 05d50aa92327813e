import { putCorrection } from '#web/endpoints/registration.ts';

export const PUT = putCorrection.serve;
