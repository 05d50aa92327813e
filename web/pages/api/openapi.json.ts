import type { APIRoute } from 'astro';
import { describeApi } from '#web/http/describeApi.ts';

export const GET: APIRoute = () => Response.json(describeApi());
