import { getLabels } from '#web/endpoints/prints.ts';

export const GET = getLabels.serve;
