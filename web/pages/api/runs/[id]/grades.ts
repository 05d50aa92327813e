import { getGrades, postGrade } from '#web/endpoints/runs.ts';

export const GET = getGrades.serve;
export const POST = postGrade.serve;
