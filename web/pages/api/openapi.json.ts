import type { APIRoute } from 'astro';
import { describeApi } from '#web/endpoints/describeApi.ts';

export const GET: APIRoute = () => Response.json(describeApi());
