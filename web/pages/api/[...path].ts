import type { APIRoute } from 'astro';
import { AppError } from '#core/errors/appError.ts';
import { replyToError } from '#web/endpoints/replyToError.ts';

export const ALL: APIRoute = ({ url }) =>
  replyToError(
    new AppError('notFound', `There is nothing at ${url.pathname}. The description is at /api/openapi.json.`),
  );
