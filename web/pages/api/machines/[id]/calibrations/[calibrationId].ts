import { deleteCalibration } from '#web/endpoints/machines.ts';

export const DELETE = deleteCalibration.serve;
