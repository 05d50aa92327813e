import { postRegistrationSheet } from '#web/endpoints/registration.ts';

export const POST = postRegistrationSheet.serve;
