import { getAudit } from '#web/endpoints/audit.ts';

export const GET = getAudit.serve;
