import { getKnowledge } from '#web/endpoints/knowledge.ts';

export const GET = getKnowledge.serve;
