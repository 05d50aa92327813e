import { postCard } from '#web/endpoints/dialIns.ts';

export const POST = postCard.serve;
