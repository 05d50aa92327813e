import type { APIContext, AstroCookies } from 'astro';
import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { mayAs, type Role } from '#core/people/roles.ts';
import type { UnitSystem } from '#core/units/length.ts';
import type { Writing } from '#core/units/writing.ts';
import { keyOf } from '#web/http/keyOf.ts';
import { pageOf, topicOf } from '#web/http/topicOf.ts';
import { unitsOf, writingOfBrowser } from '#web/http/unitsOf.ts';
import { readJson } from '#web/http/readJson.ts';
import { addressOf, originOf } from '#web/http/whereAsked.ts';
import { replyToError } from '#web/http/replyToError.ts';
import { type ServerContext } from '#server/context/context.ts';
import { NOBODY, type Who } from '#server/people/whoAsks.ts';
import { serverContext } from '#server/serverContext.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addChange } from '#store/repositories/events/changes.ts';
import { actOnce, changeOnce, findReply } from '#store/repositories/workshop/requestKeys.ts';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** One documented way into the application. The OpenAPI description is made from the same schemas that parse. */
export interface EndpointSpec<
  Params extends z.ZodType,
  Query extends z.ZodType,
  Body extends z.ZodType,
  Reply extends z.ZodType,
> {
  readonly method: Method;
  /** The least that somebody must be to ask for it. */
  readonly role: Role;
  /** With parameters in braces: /api/jobs/{id}. */
  readonly path: string;
  readonly summary: string;
  readonly params?: Params;
  readonly query?: Query;
  readonly body?: Body;
  readonly maxBytes?: number;
  readonly reply: Reply;
  readonly status?: number;
  /** How a request that changes something is done; `inOne` where nothing is said. */
  readonly change?: ChangeKind;
  /** What a change is about where its address does not say it: a kind and a number. */
  readonly about?: (input: EndpointInput<z.infer<Params>, z.infer<Query>, z.infer<Body>>) => string;
  readonly handle: (
    input: EndpointInput<z.infer<Params>, z.infer<Query>, z.infer<Body>>,
    context: EndpointContext,
  ) => Promise<z.infer<Reply> | Response>;
}

/**
 * - `inOne`: the whole of it is one transaction with its request key; `context.store` is that transaction.
 * - `own`: it reads and reckons first and changes the book in `context.once`.
 * - `outside`: a machine moves or a sheet is printed; the key is written down before.
 * - `harmless`: asked twice it does no more than asked once.
 */
type ChangeKind = 'inOne' | 'own' | 'outside' | 'harmless';

/** What a handler works with. */
export interface EndpointContext extends ServerContext {
  /** What goes on after the answer: it begins when the change is kept, and never when it was not. */
  readonly afterwards: (act: (server: ServerContext) => void) => void;
  /** Changes the book and makes the answer in one transaction, once for the key of this request. */
  readonly once: <Reply>(act: (store: Store) => Promise<Reply>) => Promise<Reply>;
  /** Tells that who asked hung up. */
  readonly signal: AbortSignal;
}

export interface EndpointInput<Params, Query, Body> {
  readonly params: Params;
  readonly query: Query;
  readonly body: Body;
  /** Who signs what is kept. */
  readonly author: string;
  readonly who: Who;
  /** Where the request came from. */
  readonly address: string;
  /** What its program calls itself. */
  readonly browser: string;
  readonly cookies: AstroCookies;
  readonly url: URL;
  /** How the application was reached, for addresses that lead back to it. */
  readonly origin: string;
  /** In which units papers are written for who asks: as `?units=` says, else the browser; metric for scripts. */
  readonly units: UnitSystem;
  /** How who asks writes numbers and dates. */
  readonly writing: Writing;
}

export interface Endpoint {
  readonly method: Method;
  readonly role: Role;
  readonly path: string;
  readonly summary: string;
  readonly params: z.ZodType | undefined;
  readonly query: z.ZodType | undefined;
  readonly body: z.ZodType | undefined;
  readonly reply: z.ZodType;
  readonly status: number;
  /** @param named the parts of the path that stand in braces, decoded */
  readonly serve: (api: APIContext, named: Readonly<Record<string, string>>) => Promise<Response>;
}

const DEFAULT_MAX_BYTES = 64 * 1024;

/** Makes an endpoint: parse, handle, reply, with every refusal in plain words. */
export function defineEndpoint<
  Params extends z.ZodType = z.ZodUndefined,
  Query extends z.ZodType = z.ZodUndefined,
  Body extends z.ZodType = z.ZodUndefined,
  Reply extends z.ZodType = z.ZodType,
>(spec: EndpointSpec<Params, Query, Body, Reply>): Endpoint {
  const status = spec.status ?? 200;
  const serve: Endpoint['serve'] = async (api, named) => {
    try {
      const who = requireRole(api.locals.who, spec.role);
      const sent = spec.body && (await readJson(api.request, spec.maxBytes ?? DEFAULT_MAX_BYTES));
      const input = {
        params: spec.params ? spec.params.parse(named) : undefined,
        query: spec.query ? spec.query.parse(Object.fromEntries(api.url.searchParams)) : undefined,
        body: spec.body?.parse(sent?.value),
        author: who.name || 'bench',
        who,
        address: addressOf(api),
        browser: api.request.headers.get('user-agent') ?? '',
        cookies: api.cookies,
        url: api.url,
        origin: originOf(api.request, api.url),
        units: unitsOf(api.cookies, api.url.searchParams.get('units')),
        writing: writingOfBrowser(api.cookies, api.request.headers),
      } as EndpointInput<z.infer<Params>, z.infer<Query>, z.infer<Body>>;
      const reply = await perform(spec, api, input, sent?.sha256 ?? '');
      return reply instanceof Response ? reply : Response.json(reply, { status });
    } catch (error) {
      return replyToError(error, spec.method === 'GET' || !isOutside(spec.change));
    }
  };
  const { method, role, path, summary, params, query, body, reply } = spec;
  return { method, role, path, summary, params, query, body, reply, status, serve };
}

/** What such a request does may have been done, also when it failed. */
function isOutside(change: ChangeKind | undefined): boolean {
  return change === 'outside' || change === 'harmless';
}

interface Performed<Input, Reply> {
  readonly method: Method;
  readonly change?: ChangeKind;
  readonly about?: (input: Input) => string;
  readonly handle: (input: Input, context: EndpointContext) => Promise<Reply | Response>;
}

/** Has a handler answer: a change once for its key, and none of it when it fails. */
async function perform<Input extends EndpointInput<unknown, unknown, unknown>, Reply>(
  { method, change, about, handle }: Performed<Input, Reply>,
  api: APIContext,
  input: Input,
  bodyHash: string,
): Promise<Reply | Response> {
  const server = serverContext();
  const pool = server.store;
  const later: ((server: ServerContext) => void)[] = [];
  const afterwards: EndpointContext['afterwards'] = (act) => void later.push(act);
  const { signal } = api.request;
  /** Told in the transaction of the change, so that who hears of it finds it. */
  const tell = async (store: Store) => {
    const topic = about?.(input) ?? topicOf(api.url.pathname);
    if (topic === null) return;
    await addChange(store, { topic, author: input.author, page: pageOf(api.request.headers) }, new Date());
    later.push(({ feed }) => feed.nudge());
  };
  const told = async <Done>(act: () => Promise<Done>): Promise<Done> => {
    const done = await act();
    await tell(pool).catch((error: unknown) => server.log.error({ err: error }, 'a change was not told'));
    return done;
  };
  const direct: EndpointContext = { ...server, afterwards, signal, once: (act) => act(pool) };
  const answer = async () => {
    if (method === 'GET') return handle(input, direct);
    if (change === 'harmless') return told(() => handle(input, direct));
    const request = keyOf(api.request, api.url, bodyHash);
    const before = await findReply<Reply>(pool, request);
    if (before) return before.reply;
    if (change === 'outside') {
      return told(() => actOnce(pool, request, new Date(), () => handle(input, direct)));
    }
    const once: EndpointContext['once'] = (act) =>
      changeOnce(pool, request, new Date(), async (store) => {
        // A transaction that collided is done again from its beginning.
        later.length = 0;
        const done = await act(store);
        await tell(store);
        return done;
      });
    if (change === 'own') return handle(input, { ...direct, once });
    return once((store) => handle(input, { ...direct, store }));
  };
  const reply = await answer();
  for (const act of later) act(server);
  return reply;
}

/** @throws AppError `notSignedIn` for nobody, `notAllowed` for who may do less */
export function requireRole(who: Who | undefined, needed: Role): Who {
  const asks = who ?? NOBODY;
  if (mayAs(asks.role, needed)) return asks;
  if (asks.role === 'nobody') throw new AppError('notSignedIn', 'Sign in at this address, or send a token.');
  throw new AppError('notAllowed', `${asks.name} is ${asks.role} here: this takes an ${needed}.`);
}

/** A positive whole number in a path or query. */
export const idParam = z.coerce.number().int().positive();
