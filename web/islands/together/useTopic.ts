import { useEffect, useRef, useState } from 'react';
import { pageName } from '#web/islands/shared/callApi.ts';
import { topicEventSchema } from '#web/schemas/events.ts';

/** What a page knows of the others that show the same. */
export interface Together {
  /** Who looks at it in other pages. */
  readonly names: readonly string[];
  /** Whoever changed it last from another page; `null` when nobody did. */
  readonly changedBy: string | null;
  /** Whether changes are told: else it is read again now and then. */
  readonly isTold: boolean;
}

const ALONE: Together = { names: [], changedBy: null, isTold: false };

/**
 * Watches one thing together with others: `onChange` is called when another page changed it, and when changes may have
 * been missed. A page that is out of sight watches nothing: browsers hold few lines to a server open.
 *
 * @param topic a kind and a number, such as jobs/3; `null`: nothing yet
 */
export function useTopic(topic: string | null, onChange: () => void): Together {
  const [together, setTogether] = useState<Together>(ALONE);
  const changed = useRef(onChange);
  useEffect(() => {
    changed.current = onChange;
  });
  useEffect(() => {
    if (topic === null) return;
    let source: EventSource | null = null;
    let hasMissed = false;
    const close = () => {
      source?.close();
      source = null;
      setTogether((now) => ({ ...now, names: [], isTold: false }));
      hasMissed = true;
    };
    const open = () => {
      if (source) return;
      source = new EventSource(`/api/events?topic=${topic}&page=${pageName()}`);
      source.onopen = () => {
        setTogether((now) => ({ ...now, isTold: true }));
        if (hasMissed) changed.current();
        hasMissed = false;
      };
      source.onerror = () => {
        hasMissed = true;
        setTogether((now) => ({ ...now, names: [], isTold: false }));
      };
      source.onmessage = ({ data }: MessageEvent<string>) => {
        const event = topicEventSchema.parse(JSON.parse(data));
        if (event.kind === 'here') {
          setTogether((now) => ({ ...now, names: event.names }));
          return;
        }
        setTogether((now) => ({ ...now, changedBy: event.author }));
        changed.current();
      };
    };
    const see = () => (document.visibilityState === 'visible' ? open() : close());
    see();
    document.addEventListener('visibilitychange', see);
    return () => {
      document.removeEventListener('visibilitychange', see);
      source?.close();
      setTogether(ALONE);
    };
  }, [topic]);
  return together;
}
