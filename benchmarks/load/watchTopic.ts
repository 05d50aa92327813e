/** A browser that watches something: when it was told of each change, ms of `performance.now()`. */
export interface WatchingBrowser {
  /** When the changes it was told of arrived, in order. */
  readonly heard: readonly number[];
  /** When its line is open and it was told who is there. */
  readonly ready: Promise<void>;
  close(): void;
}

/** Opens a line as a page does. */
export function watchTopic(address: string, topic: string, name: string): WatchingBrowser {
  const heard: number[] = [];
  const ending = new AbortController();
  let isReady: () => void = () => undefined;
  const ready = new Promise<void>((resolve) => (isReady = resolve));
  const listen = async () => {
    const url = `${address}/api/events?topic=${topic}&page=${name}`;
    const reply = await fetch(url, {
      signal: ending.signal,
      headers: { cookie: `feather_operator=${name}` },
    });
    const decoder = new TextDecoder();
    const reader = (reply.body as ReadableStream<Uint8Array>).getReader();
    for (let part = await reader.read(); !part.done; part = await reader.read()) {
      const text = decoder.decode(part.value, { stream: true });
      if (text.includes('"here"')) isReady();
      const changes = text.match(/"changed"/g)?.length ?? 0;
      for (let nth = 0; nth < changes; nth++) heard.push(performance.now());
    }
  };
  listen().catch(() => isReady());
  return { heard, ready, close: () => ending.abort() };
}
