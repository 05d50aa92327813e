import type { APIContext, APIRoute } from 'astro';
import { z } from 'zod';
import { readJson } from '#web/endpoints/readJson.ts';
import { replyToError } from '#web/endpoints/replyToError.ts';
import { type ServerContext } from '#server/context/context.ts';
import { serverContext } from '#server/serverContext.ts';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';

/** One documented way into the application. The OpenAPI description is made from the same schemas that parse. */
export interface EndpointSpec<
  Params extends z.ZodType,
  Query extends z.ZodType,
  Body extends z.ZodType,
  Reply extends z.ZodType,
> {
  readonly method: Method;
  /** With parameters in braces: /api/jobs/{id}. */
  readonly path: string;
  readonly summary: string;
  readonly params?: Params;
  readonly query?: Query;
  readonly body?: Body;
  readonly maxBytes?: number;
  readonly reply: Reply;
  readonly status?: number;
  readonly handle: (
    input: EndpointInput<z.infer<Params>, z.infer<Query>, z.infer<Body>>,
    context: ServerContext,
  ) => Promise<z.infer<Reply> | Response>;
}

export interface EndpointInput<Params, Query, Body> {
  readonly params: Params;
  readonly query: Query;
  readonly body: Body;
  /** Who stands at the bench, as the browser says. */
  readonly author: string;
  /** How the application was reached, for addresses that lead back to it. */
  readonly origin: string;
}

export interface Endpoint {
  readonly method: Method;
  readonly path: string;
  readonly summary: string;
  readonly params: z.ZodType | undefined;
  readonly query: z.ZodType | undefined;
  readonly body: z.ZodType | undefined;
  readonly reply: z.ZodType;
  readonly status: number;
  readonly serve: APIRoute;
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
  const serve: APIRoute = async (api) => {
    try {
      const input = {
        params: spec.params ? spec.params.parse(api.params) : undefined,
        query: spec.query ? spec.query.parse(Object.fromEntries(api.url.searchParams)) : undefined,
        body: spec.body
          ? spec.body.parse(await readJson(api.request, spec.maxBytes ?? DEFAULT_MAX_BYTES))
          : undefined,
        author: readAuthor(api),
        origin: `http://${api.request.headers.get('host') ?? api.url.host}`,
      } as EndpointInput<z.infer<Params>, z.infer<Query>, z.infer<Body>>;
      const reply = await spec.handle(input, serverContext());
      return reply instanceof Response ? reply : Response.json(reply, { status });
    } catch (error) {
      return replyToError(error);
    }
  };
  const { method, path, summary, params, query, body, reply } = spec;
  return { method, path, summary, params, query, body, reply, status, serve };
}

/** The name in the operator cookie, or "bench" for scripts. */
function readAuthor(api: APIContext): string {
  const name = api.cookies.get('feather_operator')?.value.trim().slice(0, 60);
  return name ? name : 'bench';
}

/** A positive whole number in a path or query. */
export const idParam = z.coerce.number().int().positive();
