import type { APIContext, AstroCookies } from 'astro';
import { originOf } from '#web/http/whereAsked.ts';
import type { ServerContext } from '#server/context/context.ts';
import { hashKey } from '#server/people/secrets.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { isTrustedBench } from '#store/repositories/people/trustedBenches.ts';
import { whoShows, type Who } from '#server/people/whoAsks.ts';

export const SESSION_COOKIE = 'feather_session';
const BENCH_COOKIE = 'feather_bench';
const DAY_SECONDS = 86_400;
const SESSION_DAYS = 14;
const BENCH_DAYS = 365;
const LONGEST_NAME = 60;

/** Gives a browser a key that no script of a page can read, and that no other site sends along. */
function keepKey(cookies: AstroCookies, origin: string, name: string, key: string, days: number): void {
  cookies.set(name, key, {
    path: '/',
    httpOnly: true,
    sameSite: 'lax',
    secure: origin.startsWith('https:'),
    maxAge: days * DAY_SECONDS,
  });
}

export function keepSessionKey(cookies: AstroCookies, origin: string, key: string): void {
  keepKey(cookies, origin, SESSION_COOKIE, key, SESSION_DAYS);
}

export function keepBenchKey(cookies: AstroCookies, origin: string, key: string): void {
  keepKey(cookies, origin, BENCH_COOKIE, key, BENCH_DAYS);
}

/** Whether hands change by a PIN at this browser. */
export async function isAtTrustedBench(cookies: AstroCookies, store: Store): Promise<boolean> {
  const key = cookies.get(BENCH_COOKIE)?.value;
  return key !== undefined && isTrustedBench(store, hashKey(key));
}

/** Who asks: by session or token; in an open demo its owner, under the name that stands at the bench. */
export async function identify(
  { request, cookies, url }: Pick<APIContext, 'request' | 'cookies' | 'url'>,
  { store, isOpenDemo }: ServerContext,
): Promise<Who> {
  const sessionKey = cookies.get(SESSION_COOKIE)?.value;
  const authorization = request.headers.get('authorization');
  const { who, freshKey } = await whoShows(store, { sessionKey, authorization }, new Date());
  if (freshKey) keepSessionKey(cookies, originOf(request, url), freshKey);
  if (who.role !== 'nobody' || !isOpenDemo || authorization !== null) return who;
  const name = cookies.get('feather_operator')?.value.trim().slice(0, LONGEST_NAME) ?? '';
  return { name, role: 'owner', by: 'demo', operatorId: null, sessionId: null };
}
