import { getRegistration } from '#web/endpoints/registration.ts';

export const GET = getRegistration.serve;
