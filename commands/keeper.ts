import { join } from 'node:path';
import { z } from 'zod';
import { startBackground } from '#commands/backgroundProcess.ts';
import { ROOT } from '#commands/homeFolder.ts';
import type { StandInPorts } from '#commands/startApp.ts';

const ports = z.object({ dataPort: z.number(), panelPort: z.number(), pagePort: z.number().optional() });

/** What is kept running, and where. */
export const keptSchema = z.object({
  home: z.string(),
  port: z.number(),
  url: z.string(),
  scratchUrl: z.string(),
  /** Whether the database is a private instance in the home folder. */
  isOwn: z.boolean(),
  /** Of the demo; a workshop has machines of its own. */
  standIns: z
    .object({ desk: ports, roll: ports, flat: ports, printer: z.object({ port: z.number() }).optional() })
    .nullable(),
  pace: z.number().default(6),
});
export type Kept = z.infer<typeof keptSchema>;

/** Starts the process that restarts the others when they end, turns their logs over and makes a copy each day. */
export function startKeeper(
  home: string,
  kept: Omit<Kept, 'home' | 'standIns' | 'pace'> & {
    readonly standIns: StandInPorts | null;
    readonly pace?: number;
  },
): void {
  startBackground({
    home,
    name: 'keeper',
    command: process.execPath,
    arguments: ['--import', 'tsx', join(ROOT, 'commands/keep.ts')],
    environment: { FEATHER_KEPT: JSON.stringify({ ...kept, home }) },
  });
}
