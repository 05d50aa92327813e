import type { APIContext } from 'astro';
import { AppError } from '#core/errors/appError.ts';
import type { Endpoint } from '#web/http/defineEndpoint.ts';
import { ENDPOINTS } from '#web/http/listEndpoints.ts';
import { replyToError } from '#web/http/replyToError.ts';

interface Way {
  readonly endpoint: Endpoint;
  readonly pattern: RegExp;
  /** Named parts come after fixed ones: /api/jobs/file before /api/jobs/{id}. */
  readonly rank: string;
}

const NAMED = /\{(\w+)\}/g;
const WAYS: readonly Way[] = ENDPOINTS.map((endpoint) => ({
  endpoint,
  pattern: new RegExp(`^${endpoint.path.replaceAll('.', '\\.').replace(NAMED, '(?<$1>[^/]+)')}/?$`),
  rank: endpoint.path.replace(NAMED, '~'),
})).sort((one, other) => (one.rank < other.rank ? -1 : 1));

/** Answers whatever is asked under /api/: the one way in to every endpoint. */
export async function serveApi(api: APIContext): Promise<Response> {
  try {
    const isHead = api.request.method === 'HEAD';
    const { endpoint, named } = findEndpoint(isHead ? 'GET' : api.request.method, api.url.pathname);
    const reply = await endpoint.serve(api, named);
    if (!isHead) return reply;
    await reply.body?.cancel();
    return new Response(null, { status: reply.status, headers: reply.headers });
  } catch (error) {
    return replyToError(error);
  }
}

/**
 * The endpoint of an address, and the parts of it that stand in braces.
 *
 * @throws AppError `notFound` when nothing is there, `wrongMethod` when it takes others, `badInput` for a broken escape
 */
export function findEndpoint(
  method: string,
  path: string,
): { readonly endpoint: Endpoint; readonly named: Readonly<Record<string, string>> } {
  const there = WAYS.filter(({ pattern }) => pattern.test(path));
  const way = there.find(({ endpoint }) => endpoint.method === method);
  if (way) return { endpoint: way.endpoint, named: decode(way.pattern.exec(path)?.groups ?? {}) };
  if (there.length === 0) {
    throw new AppError('notFound', `There is nothing at ${path}. The description is at /api/openapi.json.`);
  }
  const taken = [...new Set(there.map(({ endpoint }) => endpoint.method))].join(', ');
  throw new AppError('wrongMethod', `${path} takes ${taken}, not ${method}.`);
}

function decode(groups: Readonly<Record<string, string>>): Readonly<Record<string, string>> {
  try {
    return Object.fromEntries(
      Object.entries(groups).map(([name, value]) => [name, decodeURIComponent(value)]),
    );
  } catch {
    throw new AppError('badInput', 'The address has a % that stands for nothing.');
  }
}
