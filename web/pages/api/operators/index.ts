import { postOperator } from '#web/endpoints/workshop.ts';

export const POST = postOperator.serve;
