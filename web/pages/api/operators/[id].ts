import { deleteOperator } from '#web/endpoints/workshop.ts';

export const DELETE = deleteOperator.serve;
