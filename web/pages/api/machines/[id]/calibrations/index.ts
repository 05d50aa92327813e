import { postCalibration } from '#web/endpoints/machines.ts';

export const POST = postCalibration.serve;
