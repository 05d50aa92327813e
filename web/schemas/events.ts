import { z } from 'zod';

/** What a page is told of what it shows. */
export const topicEventSchema = z.discriminatedUnion('kind', [
  /** Somebody changed it, in another page. */
  z.object({ kind: z.literal('changed'), topic: z.string(), author: z.string() }),
  /** Who looks at it in other pages, each name once. */
  z.object({ kind: z.literal('here'), topic: z.string(), names: z.array(z.string()).readonly() }),
]);
export type TopicEvent = z.infer<typeof topicEventSchema>;
