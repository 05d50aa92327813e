import { randomUUID } from 'node:crypto';
import { changeFeed } from '#server/events/changeFeed.ts';
import type { ServerContext } from '#server/context/context.ts';
import { isStillIn } from '#server/people/isStillIn.ts';
import type { Who } from '#server/people/whoAsks.ts';
import { addChange } from '#store/repositories/events/changes.ts';
import { enterWatcher, leaveWatcher, listWatchers } from '#store/repositories/events/watchers.ts';
import type { TopicEvent } from '#web/schemas/events.ts';

/** So often it is looked whether who watches may still, and who else is there, ms. */
const LOOK_MS = 5_000;
/** Before the name of a page, where a change is that somebody came or went. */
const CAME = 'came:';

interface Watching {
  readonly topic: string;
  readonly page: string;
  readonly who: Who;
}

/**
 * What is changed of a topic by other pages, and who looks at it, as server-sent events, for as long as who asks may
 * see it.
 */
export function streamTopic({ topic, page, who }: Watching, context: ServerContext): Response {
  const { store, log, nudge } = context;
  const feed = changeFeed(context);
  const id = randomUUID();
  let isEnded = false;
  let end: () => void = () => undefined;
  const tellAll = () =>
    addChange(store, { topic, author: who.name, page: CAME + page.slice(0, 30) }, new Date());
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const encoder = new TextEncoder();
      const write = (text: string) => {
        if (!isEnded) controller.enqueue(encoder.encode(text));
      };
      const send = (event: TopicEvent) => write(`data: ${JSON.stringify(event)}\n\n`);
      let shown = '';
      const showPeople = async () => {
        const there = await listWatchers(store, topic, new Date());
        const names = [...new Set(there.filter((one) => one.page !== page).map(({ name }) => name))];
        const now = JSON.stringify(names);
        if (now !== shown) send({ kind: 'here', topic, names });
        shown = now;
      };
      const look = async () => {
        if (await isStillIn(store, who)) return showPeople();
        end();
        controller.close();
      };
      const failed = (error: unknown) => log.error({ err: error }, 'a page cannot be told');
      const unwatch = feed.watch(topic, (change) => {
        if (change.page.startsWith(CAME)) showPeople().catch(failed);
        else if (change.page !== page) send({ kind: 'changed', topic, author: change.author });
      });
      const beat = setInterval(() => {
        write(': still here\n\n');
        look().catch(failed);
      }, LOOK_MS);
      end = () => {
        if (isEnded) return;
        isEnded = true;
        unwatch();
        clearInterval(beat);
        leaveWatcher(store, id).then(tellAll).then(nudge).catch(failed);
      };
      write('retry: 1000\n\n');
      enterWatcher(store, { id, server: feed.server, topic, page, name: who.name || 'somebody' }, new Date())
        .then(tellAll)
        .then(nudge)
        .then(showPeople)
        .catch(failed);
    },
    cancel: () => end(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
  });
}
