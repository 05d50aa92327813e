import type { ServerContext } from '#server/context/context.ts';
import { ChangeFeed } from '#server/events/changeFeed.ts';
import { readNetworkSettings } from '#server/network/networkSettings.ts';
import type { Store } from '#store/connection/connectStore.ts';

/** Only for tests: in place of `#server/serverContext.ts`, a server with a store and nothing else that is alive. */
export function bareContext(store: () => Store): { readonly serverContext: () => ServerContext } {
  const silent = () => undefined;
  const log = { error: silent, info: silent, debug: silent };
  const context = () => ({
    store: store(),
    log,
    standIns: null,
    feed: new ChangeFeed(store(), log),
    leases: null,
    ownPorts: [],
    network: readNetworkSettings({}),
  });
  return { serverContext: context as unknown as () => ServerContext };
}
