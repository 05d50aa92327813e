import { join } from 'node:path';
import {
  freshLog,
  isRunning,
  pause,
  startBackground,
  stopBackground,
  tailLog,
} from '#commands/backgroundProcess.ts';
import { BUILT_THREADS } from '#commands/buildApp.ts';
import { PortTakenError, startOnFreePorts } from '#commands/ports/freePort.ts';
import { ROOT } from '#commands/homeFolder.ts';

/** Where the stand-in cutters listen. */
export interface StandInPorts {
  readonly desk: CutterPorts;
  readonly roll: CutterPorts;
  readonly flat: CutterPorts;
  readonly printer?: { readonly port: number } | undefined;
}

interface CutterPorts {
  readonly dataPort: number;
  readonly panelPort: number;
  /** The page that shows its panel and its sheet. */
  readonly pagePort?: number | undefined;
}

const NODE_FLAGS = ['--import', 'tsx'];

/** Starts the stand-in cutters and the printer, each its own process, and returns their ports once they listen. */
export async function startStandIns(home: string, pace: number): Promise<StandInPorts> {
  return {
    desk: await startStandIn(home, 'desk', pace),
    roll: await startStandIn(home, 'roll', pace),
    flat: await startStandIn(home, 'flat', pace),
    printer: await startPrinter(home),
  };
}

/** The table between the printer and the cutters. */
function trayFolder(home: string): string {
  return join(home, 'run', 'tray');
}

function startPrinter(home: string) {
  return startOnFreePorts(['port'], ({ port }) => startPrinterAt(home, port));
}

/** Starts the printer on a port, which is that of the one before when it is started again. */
export async function startPrinterAt(home: string, port: number) {
  const name = 'printer';
  await stopBackground(home, name);
  const pid = startBackground({
    home,
    name,
    command: process.execPath,
    arguments: [...NODE_FLAGS, join(ROOT, 'devices/printer/main.ts')],
    environment: { FEATHER_PRINTER_PORT: String(port), FEATHER_TRAY: trayFolder(home) },
  });
  await waitUntil(home, name, pid, () => Promise.resolve(freshLog(home, name).includes('printerPort')));
  return { port };
}

function startStandIn(home: string, model: 'desk' | 'roll' | 'flat', pace: number) {
  return startOnFreePorts(['dataPort', 'panelPort', 'pagePort'], (ports) =>
    startStandInAt(home, model, pace, ports),
  );
}

/** Starts a stand-in cutter on its ports, which are those of the one before when it is started again. */
export async function startStandInAt(
  home: string,
  model: 'desk' | 'roll' | 'flat',
  pace: number,
  ports: CutterPorts,
): Promise<CutterPorts> {
  const name = `cutter-${model}`;
  await stopBackground(home, name);
  const pid = startBackground({
    home,
    name,
    command: process.execPath,
    arguments: [...NODE_FLAGS, join(ROOT, 'devices/cutter/main.ts')],
    environment: {
      FEATHER_CUTTER_MODEL: model,
      FEATHER_CUTTER_PORT: String(ports.dataPort),
      FEATHER_CUTTER_PANEL_PORT: String(ports.panelPort),
      ...(ports.pagePort === undefined ? {} : { FEATHER_CUTTER_PAGE_PORT: String(ports.pagePort) }),
      FEATHER_CUTTER_PACE: String(pace),
      FEATHER_TRAY: trayFolder(home),
    },
  });
  await waitUntil(home, name, pid, () => Promise.resolve(freshLog(home, name).includes('dataPort')));
  return ports;
}

/** The web server on any free port. @returns its address */
export function startWebAnywhere(
  home: string,
  databaseUrl: string,
  standIns: StandInPorts | null,
): Promise<string> {
  return startOnFreePorts(['port'], ({ port }) => startWeb(home, port, databaseUrl, standIns));
}

/** Starts the web server and waits until its health check answers. */
export async function startWeb(
  home: string,
  port: number,
  databaseUrl: string,
  standIns: StandInPorts | null,
): Promise<string> {
  await stopBackground(home, 'web');
  const pid = startBackground({
    home,
    name: 'web',
    command: process.execPath,
    arguments: [...NODE_FLAGS, join(ROOT, 'commands/serve.ts')],
    environment: {
      NODE_ENV: 'production',
      FEATHER_PORT: String(port),
      FEATHER_DATABASE_URL: databaseUrl,
      FEATHER_THREADS: BUILT_THREADS,
      FEATHER_STAND_INS: JSON.stringify(standIns),
      // Only a demo has stand-ins: it signs in by itself as its owner.
      FEATHER_SIGN_IN: standIns ? 'demo' : 'people',
      FEATHER_TLS_FOLDER: join(home, 'tls'),
      // And it stays on this computer, whatever was set for a workshop.
      ...(standIns ? { FEATHER_NETWORK_PORT: '', FEATHER_PUBLIC_URL: '' } : {}),
    },
  });
  const address = `http://127.0.0.1:${port}`;
  await waitUntil(home, 'web', pid, () => isHealthy(address));
  return address;
}

/** Stops the keeper, who would start them again, then the web server and the stand-ins. Returns how many were running. */
export async function stopProcesses(home: string): Promise<number> {
  const stopped: boolean[] = [];
  for (const name of ['keeper', 'web', 'cutter-desk', 'cutter-roll', 'cutter-flat', 'printer'])
    stopped.push(await stopBackground(home, name));
  return stopped.filter(Boolean).length;
}

async function waitUntil(
  home: string,
  name: string,
  pid: number,
  isReady: () => Promise<boolean>,
): Promise<void> {
  for (let tries = 0; tries < 300; tries++) {
    if (await isReady()) return;
    if (!isRunning(pid)) break;
    await pause(100);
  }
  const kind = freshLog(home, name).includes('EADDRINUSE') ? PortTakenError : Error;
  throw new kind(`${name} did not start. The end of its log:\n${tailLog(home, name)}`);
}

/** @param withinMs one that takes longer to say so counts as away */
export async function isHealthy(address: string, withinMs?: number): Promise<boolean> {
  const signal = withinMs === undefined ? null : AbortSignal.timeout(withinMs);
  try {
    return (await fetch(`${address}/api/health`, { signal })).ok;
  } catch {
    return false;
  }
}
