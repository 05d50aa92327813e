import type { APIRoute } from 'astro';
import { serveApi } from '#web/http/serveApi.ts';

export const ALL: APIRoute = serveApi;
