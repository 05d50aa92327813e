import { configure } from '@testing-library/dom';
import { afterEach, vi } from 'vitest';

// Other tests share the machine: what is looked for may take as long as a page may.
configure({ asyncUtilTimeout: 20_000 });

/** One request that an island made. */
export interface SeenRequest {
  readonly method: string;
  readonly path: string;
  readonly body: unknown;
}

/** A refusal as the server words it. */
export const refusal = (status: number, title: string, message: string) =>
  new Response(JSON.stringify({ error: { code: 'conflict', title, message } }), { status });

/**
 * Only for tests: answers what islands ask for, and remembers what was asked.
 *
 * @param answers by "METHOD /path", the query left out: a reply, a refusal, a promise of either, or a function of the request
 */
export function stubServer(answers: Readonly<Record<string, unknown>>): readonly SeenRequest[] {
  const seen: SeenRequest[] = [];
  const answer = async (
    address: string,
    { method = 'GET', body }: { method?: string; body?: string } = {},
  ) => {
    const request = {
      method,
      path: address,
      body: body === undefined ? undefined : (JSON.parse(body) as unknown),
    };
    seen.push(request);
    const key = `${method} ${address.split('?')[0]}`;
    if (!(key in answers)) throw new TypeError(`nobody answers ${key}`);
    const found = answers[key];
    const reply: unknown = await (typeof found === 'function'
      ? (found as (asked: SeenRequest) => unknown)(request)
      : found);
    return reply instanceof Response ? reply.clone() : new Response(JSON.stringify(reply));
  };
  vi.stubGlobal('fetch', vi.fn(answer));
  return seen;
}

/** Only for tests: events of a run, told by hand. */
export class StubEvents {
  private static all: StubEvents[] = [];
  onopen: (() => void) | null = null;
  onerror: (() => void) | null = null;
  onmessage: ((message: { readonly data: string }) => void) | null = null;
  isClosed = false;

  constructor(readonly address: string) {
    StubEvents.all.push(this);
  }

  /** The last one that was opened at an address. */
  static last(address: string): StubEvents | null {
    return StubEvents.all.findLast((one) => one.address === address) ?? null;
  }

  static forget(): void {
    StubEvents.all = [];
  }

  close(): void {
    this.isClosed = true;
  }

  tell(event: object): void {
    this.onmessage?.({ data: JSON.stringify(event) });
  }
}

afterEach(() => {
  vi.unstubAllGlobals();
  StubEvents.forget();
});
