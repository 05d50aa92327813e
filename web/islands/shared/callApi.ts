/** A refusal from the server, in its own words. */
export class ApiRefusal extends Error {
  constructor(
    readonly code: string,
    readonly title: string,
    message: string,
  ) {
    super(message);
  }
}

interface RefusalBody {
  readonly error?: { readonly code?: string; readonly title?: string; readonly message?: string };
}

/**
 * Calls the application's own HTTP interface.
 *
 * @throws ApiRefusal with words for the screen, also when the server cannot be reached
 */
export async function callApi<Reply>(path: string, method = 'GET', body?: unknown): Promise<Reply> {
  const response = await send(path, method, body);
  const parsed: unknown = await response.json().catch(() => null);
  if (response.ok) return parsed as Reply;
  const { error } = (parsed ?? {}) as RefusalBody;
  throw new ApiRefusal(
    error?.code ?? 'unforeseen',
    error?.title ?? 'The server failed',
    error?.message ?? `It answered with status ${response.status}. Nothing was changed.`,
  );
}

async function send(path: string, method: string, body: unknown): Promise<Response> {
  try {
    return await fetch(path, {
      method,
      ...(body === undefined
        ? {}
        : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
    });
  } catch {
    throw new ApiRefusal(
      'unreachable',
      'The server does not answer',
      'What you entered is still here. Check that Pale Feather is running and try again.',
    );
  }
}
