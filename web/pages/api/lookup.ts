import { getLookup } from '#web/endpoints/lookup.ts';

export const GET = getLookup.serve;
