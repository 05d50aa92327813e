import { randomUUID } from 'node:crypto';
import type { ServerContext } from '#server/context/context.ts';
import { isStillIn } from '#server/people/isStillIn.ts';
import type { Who } from '#server/people/whoAsks.ts';
import { addChange } from '#store/repositories/events/changes.ts';
import { enterWatcher, leaveWatcher } from '#store/repositories/events/watchers.ts';
import { eventStream } from '#web/http/eventStream.ts';
import type { TopicEvent } from '#web/schemas/events.ts';

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
export function streamTopic({ topic, page, who }: Watching, { store, log, feed }: ServerContext): Response {
  const id = randomUUID();
  const failed = (error: unknown) => log.error({ err: error }, 'a page cannot be told');
  const tellAll = async () => {
    await addChange(store, { topic, author: who.name, page: CAME + page.slice(0, 30) }, new Date());
    feed.nudge();
  };
  return eventStream(
    (line) => {
      const send = (event: TopicEvent) => line.send(event);
      let shown = '';
      const showPeople = async () => {
        const there = await feed.peopleOf(topic);
        const names = [...new Set(there.filter((one) => one.page !== page).map(({ name }) => name))];
        const now = JSON.stringify(names);
        if (now !== shown) send({ kind: 'here', topic, names });
        shown = now;
      };
      const unwatch = feed.watch(topic, (change) => {
        if (change.page.startsWith(CAME)) showPeople().catch(failed);
        else if (change.page !== page) send({ kind: 'changed', topic, author: change.author });
      });
      enterWatcher(store, { id, server: feed.server, topic, page, name: who.name || 'somebody' }, new Date())
        .then(tellAll)
        .then(showPeople)
        .catch(failed);
      return {
        end: () => {
          unwatch();
          leaveWatcher(store, id).then(tellAll).catch(failed);
        },
        beat: () => void showPeople().catch(failed),
      };
    },
    () => isStillIn(store, who),
  );
}
