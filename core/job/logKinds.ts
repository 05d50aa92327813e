/** What the log tells of. */
export const LOG_KINDS = ['run', 'testCut', 'setting', 'upkeep', 'wait', 'fault', 'change'] as const;
export type LogKind = (typeof LOG_KINDS)[number];
