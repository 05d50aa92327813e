import type { APIContext } from 'astro';
import { ADDRESS_HEADER, ORIGIN_HEADER } from '#server/network/whereAsked.ts';

/** How the application was reached, for addresses that lead back to it: scheme, name and port. */
export function originOf(request: Request, url: URL): string {
  return request.headers.get(ORIGIN_HEADER) ?? `http://${request.headers.get('host') ?? url.host}`;
}

/** Where a request came from: the address of its computer, also behind a proxy of ours. */
export function addressOf({ request, clientAddress }: Pick<APIContext, 'request' | 'clientAddress'>): string {
  return request.headers.get(ADDRESS_HEADER) ?? clientAddress;
}
