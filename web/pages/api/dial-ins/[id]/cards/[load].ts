import { deleteCard } from '#web/endpoints/dialIns.ts';

export const DELETE = deleteCard.serve;
