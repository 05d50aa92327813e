/** Names under which this computer knows itself. */
const OWN = ['127.0.0.1', 'localhost', '[::1]'];

/**
 * Whether a request is meant for this application: a page of somebody else whose name was made to lead here is not.
 *
 * @param host the Host header, with or without a port
 * @param more further names it is served under
 * @example isKnownHost('localhost:4310') // true
 */
export function isKnownHost(host: string | undefined, more: readonly string[] = []): boolean {
  if (host === undefined) return false;
  const name = host.replace(/:\d+$/, '').toLowerCase();
  return [...OWN, ...more].includes(name);
}
