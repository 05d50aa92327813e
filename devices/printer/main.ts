import { z } from 'zod';
import { servePrinter } from '#devices/printer/servePrinter.ts';

/** The stand-in printer as its own process. Prints its port as one JSON line when it is ready. */
const environment = z
  .object({
    FEATHER_PRINTER_PORT: z.coerce.number().int().min(0).default(0),
    FEATHER_PRINTER_SEED: z.coerce.number().int().default(1),
    FEATHER_TRAY: z.string().optional(),
    FEATHER_PRINTER_WET_MINUTES: z.coerce.number().min(0).default(10),
  })
  .parse(process.env);

const service = await servePrinter({
  port: environment.FEATHER_PRINTER_PORT,
  seed: environment.FEATHER_PRINTER_SEED,
  tray: environment.FEATHER_TRAY,
  wetMinutes: environment.FEATHER_PRINTER_WET_MINUTES,
});
process.stdout.write(`${JSON.stringify({ printerPort: service.port })}\n`);

for (const signal of ['SIGTERM', 'SIGINT'] as const) {
  process.on(signal, () => void service.close().then(() => process.exit(0)));
}
