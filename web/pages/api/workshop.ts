import { getWorkshop, putWorkshop } from '#web/endpoints/workshop.ts';

export const GET = getWorkshop.serve;
export const PUT = putWorkshop.serve;
