import type { APIRoute } from 'astro';
import { serveApi } from '#web/endpoints/serveApi.ts';

export const ALL: APIRoute = serveApi;
