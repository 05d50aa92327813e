import { deleteRegistrationSheet } from '#web/endpoints/registration.ts';

export const DELETE = deleteRegistrationSheet.serve;
