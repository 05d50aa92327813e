import { z } from 'zod';
import { defineEndpoint } from '#web/http/defineEndpoint.ts';
import { PAGE, TOPIC } from '#web/http/topicOf.ts';
import { streamTopic } from '#web/endpoints/events/streamTopic.ts';

export const getEvents = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/events',
  summary:
    'Server-sent events of one thing, such as jobs/3 or dial-ins/5: what other pages changed of it, and who looks at it.',
  query: z.object({
    topic: z.string().regex(TOPIC, 'a kind and a number, such as jobs/3'),
    page: z.string().regex(PAGE).default('script'),
  }),
  reply: z.string().meta({ description: 'text/event-stream' }),
  handle: ({ query, who }, context) => Promise.resolve(streamTopic({ ...query, who }, context)),
});
