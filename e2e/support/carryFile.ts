import type { Sight } from '#server/links/link.ts';
import { openTcp } from '#server/links/openTcp.ts';
import { standInHands } from '#server/links/standInHands.ts';

interface Ports {
  readonly dataPort: number;
  readonly panelPort: number;
}

/** Only for tests: carries a machine file to a stand-in and looks on until it has stopped, or hung up. */
export async function carryFile({ dataPort, panelPort }: Ports, file: string): Promise<readonly Sight[]> {
  const sights: Sight[] = [];
  let isOver: () => void = () => undefined;
  const over = new Promise<void>((resolve) => (isOver = resolve));
  const view = await standInHands(panelPort).watch((sight) => {
    sights.push(sight);
    if (sight.event === 'finished' || sight.event === 'stopped') isOver();
  }, isOver);
  const channel = await openTcp('127.0.0.1', dataPort);
  void channel.ended.then(isOver);
  await channel.write(file);
  await over;
  channel.cut();
  view.close();
  return sights;
}

/** The strokes among what was seen. */
export function strokesOf(sights: readonly Sight[]) {
  return sights.flatMap((sight) => (sight.event === 'stroke' ? [sight] : []));
}
