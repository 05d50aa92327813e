/** What is asked of the application's own HTTP interface. */
export interface AskedRequest {
  readonly path: string;
  readonly method: string;
  /** JSON, or `null` for no body. */
  readonly text: string | null;
  /** The request key of a change, or `null`. */
  readonly key: string | null;
}

/** Sends a request. @throws TypeError where there is no network */
export function sendRequest(
  { path, method, text, key }: AskedRequest,
  more: Readonly<Record<string, string>> = {},
): Promise<Response> {
  return fetch(path, {
    method,
    headers: {
      ...(text === null ? {} : { 'content-type': 'application/json' }),
      ...(key === null ? {} : { 'idempotency-key': key }),
      ...more,
    },
    ...(text === null ? {} : { body: text }),
  });
}
