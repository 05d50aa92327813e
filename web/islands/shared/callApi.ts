import { sendRequest } from '#web/islands/shared/sendRequest.ts';
import { keepWish, nameLater } from '#web/islands/shared/outbox.ts';

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

/** There is no network: what was asked is kept on this device and sent later, so nothing went wrong. */
export class KeptForLater extends ApiRefusal {
  constructor() {
    super('kept', 'Kept on this device', 'There is no network. It is sent by itself when it is back.');
  }
}

/** @returns whether it was kept */
async function keepForLater(wish: Parameters<typeof keepWish>[0]): Promise<boolean> {
  if (nameLater(wish.method, wish.path) === null || typeof indexedDB === 'undefined') return false;
  return keepWish(wish).then(
    () => true,
    () => false,
  );
}

interface RefusalBody {
  readonly error?: { readonly code?: string; readonly title?: string; readonly message?: string };
}

/**
 * Calls the application's own HTTP interface. A change carries a request key, so that asking again after a lost answer
 * does it once; it is asked again by itself for a few seconds, and the next press of the same button uses the same key.
 *
 * @throws ApiRefusal with words for the screen, also when the server cannot be reached
 */
export async function callApi<Reply>(path: string, method = 'GET', body?: unknown): Promise<Reply> {
  const text = body === undefined ? null : JSON.stringify(body);
  if (method === 'GET') return readReply<Reply>(await send(path, method, text, null));
  const wish = `${method} ${path} ${text ?? ''}`;
  const key = unanswered.get(wish) ?? crypto.randomUUID();
  unanswered.set(wish, key);
  const response = await sendAgain(path, method, text, key).catch(async (problem: unknown) => {
    if (await keepForLater({ method, path, text, key })) {
      // It is done from here on: pressed again, it is another wish.
      unanswered.delete(wish);
      throw new KeptForLater();
    }
    throw problem;
  });
  // Only an answer ends a wish. Of one that may have been kept nobody says that it was not.
  if (response.status !== 503) unanswered.delete(wish);
  return readReply<Reply>(response);
}

let ownName = '';

/** The name of this page among all that are open: it is not told of its own changes. */
export function pageName(): string {
  ownName ||= crypto.randomUUID();
  return ownName;
}

/** Keys of wishes that got no answer yet, by what was wished. */
const unanswered = new Map<string, string>();
/** Pauses before a change is asked for again whose answer was lost, ms. */
const ASK_AGAIN_MS = [400, 1_200] as const;

async function readReply<Reply>(response: Response): Promise<Reply> {
  const parsed: unknown = await response.json().catch(() => null);
  if (response.ok) return parsed as Reply;
  const { error } = (parsed ?? {}) as RefusalBody;
  throw new ApiRefusal(
    error?.code ?? 'unforeseen',
    error?.title ?? 'The server failed',
    error?.message ?? `It answered with status ${response.status}.`,
  );
}

async function sendAgain(path: string, method: string, text: string | null, key: string): Promise<Response> {
  for (const pause of ASK_AGAIN_MS) {
    const response = await send(path, method, text, key).catch(() => null);
    if (response && response.status !== 503) return response;
    await new Promise((resolve) => setTimeout(resolve, pause));
  }
  return send(path, method, text, key);
}

async function send(
  path: string,
  method: string,
  text: string | null,
  key: string | null,
): Promise<Response> {
  try {
    const page = key === null ? {} : { 'x-feather-page': pageName() };
    return await sendRequest({ path, method, text, key }, page);
  } catch {
    throw new ApiRefusal(
      'unreachable',
      'The server does not answer',
      'What you entered is still here. Check that Pale Feather is running, then press again: it is done once only.',
    );
  }
}
