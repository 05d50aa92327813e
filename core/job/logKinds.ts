/** What the log tells of. */
export const LOG_KINDS = ['run', 'testCut', 'setting', 'upkeep', 'wait', 'fault', 'change'] as const;
export type LogKind = (typeof LOG_KINDS)[number];

/** One line of the log. */
export interface LogEntry {
  readonly id: string;
  readonly kind: LogKind;
  /** ISO 8601, UTC. */
  readonly at: string;
  readonly what: string;
  readonly detail: string;
  readonly author: string;
  /** Where to read more, as a path of the application, or `null`. */
  readonly link: string | null;
}
