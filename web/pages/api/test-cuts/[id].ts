import { deleteTestCut } from '#web/endpoints/testCuts.ts';

export const DELETE = deleteTestCut.serve;
