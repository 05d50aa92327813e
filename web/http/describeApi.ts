import { z } from 'zod';
import { createDocument, type ZodOpenApiObject, type ZodOpenApiPathsObject } from 'zod-openapi';
import { SESSION_COOKIE } from '#web/http/identify.ts';
import type { Endpoint } from '#web/http/defineEndpoint.ts';
import { ENDPOINTS } from '#web/http/listEndpoints.ts';

const refusal = z.object({
  error: z.object({
    code: z.string(),
    title: z.string(),
    message: z.string(),
    details: z.unknown().optional(),
  }),
});

/** The OpenAPI 3.1 description, made from the schemas that parse requests and describe replies. */
export function describeApi(): ReturnType<typeof createDocument> {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const endpoint of ENDPOINTS) {
    paths[endpoint.path] = { ...paths[endpoint.path], [endpoint.method.toLowerCase()]: describe(endpoint) };
  }
  const description: ZodOpenApiObject = {
    openapi: '3.1.0',
    info: {
      title: 'Pale Feather',
      version: '1',
      description: 'Lengths in mm, calipers in µm, forces in gf unless they are on a scale of a machine.',
    },
    components: {
      securitySchemes: {
        token: { type: 'http', scheme: 'bearer', description: 'a token that the owner made' },
        session: { type: 'apiKey', in: 'cookie', name: SESSION_COOKIE },
      },
    },
    paths: paths as ZodOpenApiPathsObject,
  };
  return createDocument(description);
}

function describe(endpoint: Endpoint): object {
  const { params, query, body, reply, status, summary, role } = endpoint;
  return {
    summary,
    'x-role': role,
    security: role === 'nobody' ? [] : [{ token: [] }, { session: [] }],
    ...(params || query
      ? { requestParams: { ...(params && { path: params }), ...(query && { query }) } }
      : {}),
    ...(body && { requestBody: { content: { 'application/json': { schema: body } } } }),
    responses: {
      [status]: { description: 'Done', content: { 'application/json': { schema: reply } } },
      default: {
        description: 'Refused, with the reason',
        content: { 'application/json': { schema: refusal } },
      },
    },
  };
}
