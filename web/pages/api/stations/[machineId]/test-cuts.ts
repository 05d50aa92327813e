import { postTestCut } from '#web/endpoints/testCuts.ts';

export const POST = postTestCut.serve;
