import { z } from 'zod';
import { servePage } from '#devices/cutter/servePage.ts';
import { serveCutter } from '#devices/cutter/serveCutter.ts';

/** A stand-in cutter as its own process. Prints its ports as one JSON line when it is ready. */
const environment = z
  .object({
    FEATHER_CUTTER_MODEL: z.enum(['desk', 'roll', 'flat']),
    FEATHER_CUTTER_PORT: z.coerce.number().int().min(0).default(0),
    FEATHER_CUTTER_PANEL_PORT: z.coerce.number().int().min(0).default(0),
    FEATHER_CUTTER_PAGE_PORT: z.coerce.number().int().min(0).default(0),
    FEATHER_CUTTER_SEED: z.coerce.number().int().default(1),
    FEATHER_TRAY: z.string().optional(),
    FEATHER_CUTTER_PACE: z.coerce.number().positive().default(6),
  })
  .parse(process.env);

const NAMES = { desk: 'desk cutter', roll: 'roll-fed cutter', flat: 'flatbed cutter' } as const;

const service = await serveCutter({
  model: environment.FEATHER_CUTTER_MODEL,
  dataPort: environment.FEATHER_CUTTER_PORT,
  panelPort: environment.FEATHER_CUTTER_PANEL_PORT,
  seed: environment.FEATHER_CUTTER_SEED,
  pace: environment.FEATHER_CUTTER_PACE,
  tray: environment.FEATHER_TRAY,
});
const page = await servePage(
  NAMES[environment.FEATHER_CUTTER_MODEL],
  service.state,
  environment.FEATHER_CUTTER_PAGE_PORT,
);
const { dataPort, panelPort } = service;
process.stdout.write(`${JSON.stringify({ dataPort, panelPort, pagePort: page.port })}\n`);

for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  process.on(signal, () => void Promise.all([service.close(), page.close()]).then(() => process.exit(0)));
}
