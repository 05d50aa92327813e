/** What the drivers call a database that is not there, or hung up. */
const NOT_THERE: ReadonlySet<string> = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'ENOENT',
  'PROTOCOL_CONNECTION_LOST',
  'PROTOCOL_SEQUENCE_TIMEOUT',
  'ER_SERVER_SHUTDOWN',
  'ER_CON_COUNT_ERROR',
  'ER_STATEMENT_TIMEOUT',
  'ER_QUERY_INTERRUPTED',
]);
const DISK_FULL: ReadonlySet<string> = new Set(['ER_DISK_FULL', 'ER_RECORD_FILE_FULL', 'ENOSPC']);

/** Whether the database cannot be reached, did not answer in time, or every connection to it is taken. */
export function isStoreTrouble(error: unknown): error is Error {
  if (!(error instanceof Error)) return false;
  // Knex gives up waiting for a connection; the driver refuses a connection that is closing.
  if (error.name === 'KnexTimeoutError' || /closed state|Connection lost/i.test(error.message)) return true;
  return 'code' in error && NOT_THERE.has(String(error.code));
}

/** Whether the database could not write because its disk is full. */
export function isDiskFull(error: unknown): boolean {
  if (!(error instanceof Error)) return false;
  if ('code' in error && DISK_FULL.has(String(error.code))) return true;
  return /errno: 28\b|No space left/i.test(error.message);
}
