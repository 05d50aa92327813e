import { postGrades } from '#web/endpoints/dialIns.ts';

export const POST = postGrades.serve;
