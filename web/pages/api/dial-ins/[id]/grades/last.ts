import { deleteLastGrades } from '#web/endpoints/dialIns.ts';

export const DELETE = deleteLastGrades.serve;
