import { postRegistrationCard } from '#web/endpoints/registration.ts';

export const POST = postRegistrationCard.serve;
