import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';

/** What a printer says came out. */
const printedSchema = z.object({
  pages: z.number(),
  widthMm: z.number(),
  heightMm: z.number(),
  wetUntil: z.iso.datetime(),
  trouble: z.string(),
});
export type Printed = z.infer<typeof printedSchema>;

const TIMEOUT_MS = 20_000;

/**
 * Sends a PDF to the stand-in printer.
 *
 * @throws AppError `deviceUnreachable`, or `deviceRefused` with its reason
 */
export async function sendToPrinter(port: number, pdf: Uint8Array): Promise<Printed> {
  let reply: Response;
  try {
    reply = await fetch(`http://127.0.0.1:${port}/print`, {
      method: 'POST',
      body: new Uint8Array(pdf),
      signal: AbortSignal.timeout(TIMEOUT_MS),
    });
  } catch {
    throw new AppError('deviceUnreachable', 'The printer does not answer. Is it on?');
  }
  const body: unknown = await reply.json();
  if (reply.ok) return printedSchema.parse(body);
  const { reason } = z.object({ reason: z.string() }).parse(body);
  throw new AppError('deviceRefused', `The printer refused: ${reason}.`);
}
