import { setTimeout as pause } from 'node:timers/promises';
import { isBackgroundRunning } from '#commands/backgroundProcess.ts';
import { keepDailyCopy } from '#commands/database/dailyCopy.ts';
import { keptSchema, type Kept } from '#commands/keeper.ts';
import { turnLogsOver } from '#commands/turnLogsOver.ts';
import { startPrinterAt, startStandInAt, startWeb } from '#commands/startApp.ts';
import { startDatabase } from '#commands/database/startDatabase.ts';

/** Keeps the application running: what ended is started again, each time after a longer pause while it keeps ending. */
const LOOK_EVERY_MS = 1_000;
const LONGEST_PAUSE_MS = 60_000;
/** What ran for so long ended by accident, not by its nature. */
const SOUND_AFTER_MS = 60_000;
const UPKEEP_EVERY_MS = 15 * 60_000;

const kept = keptSchema.parse(JSON.parse(process.env['FEATHER_KEPT'] ?? 'null'));
const { home } = kept;

interface Watched {
  readonly name: string;
  readonly start: () => Promise<unknown>;
}

function listWatched({ isOwn, port, url, standIns, pace }: Kept): readonly Watched[] {
  const models = standIns ? (['desk', 'roll', 'flat'] as const) : [];
  const printer = standIns?.printer;
  return [
    ...(isOwn ? [{ name: 'database', start: () => startDatabase(home) }] : []),
    ...models.map((model) => ({
      name: `cutter-${model}`,
      start: () => startStandInAt(home, model, pace, (standIns as NonNullable<typeof standIns>)[model]),
    })),
    ...(printer ? [{ name: 'printer', start: () => startPrinterAt(home, printer.port) }] : []),
    { name: 'web', start: () => startWeb(home, port, url, standIns) },
  ];
}

function say(words: string): void {
  process.stdout.write(`${new Date().toISOString()} ${words}\n`);
}

const watched = listWatched(kept);
const pauses = new Map<string, { ms: number; notBefore: number; startedAt: number }>();
let lastUpkeep = 0;

for (;;) {
  await pause(LOOK_EVERY_MS);
  for (const { name, start } of watched) {
    if (isBackgroundRunning(home, name)) continue;
    const now = Date.now();
    const before = pauses.get(name) ?? { ms: 0, notBefore: 0, startedAt: 0 };
    if (now < before.notBefore) continue;
    const ms =
      now - before.startedAt > SOUND_AFTER_MS ? 0 : Math.min(LONGEST_PAUSE_MS, 2 * before.ms + 1_000);
    pauses.set(name, { ms, notBefore: now + ms, startedAt: now });
    say(`${name} ended; it is started again`);
    await start().catch((error: unknown) => say(`${name} could not be started: ${String(error)}`));
  }
  if (Date.now() - lastUpkeep < UPKEEP_EVERY_MS) continue;
  lastUpkeep = Date.now();
  try {
    turnLogsOver(home);
    // The demo can be made anew: only a workshop's book is copied.
    if (!kept.standIns) await keepDailyCopy(kept, new Date(), say);
  } catch (error) {
    say(`upkeep failed: ${String(error)}`);
  }
}
