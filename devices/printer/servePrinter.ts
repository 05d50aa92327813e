import { createServer } from 'node:http';
import { listen, readBody } from '#devices/listen.ts';
import { layInTray } from '#devices/tray.ts';
import {
  PRINT_FAULTS,
  PrintError,
  printFile,
  type PrintedSheet,
  type PrintFault,
} from '#devices/printer/printer.ts';

export interface PrinterOptions {
  /** 0 takes any free port. */
  readonly port: number;
  readonly seed: number;
  /** How long ink stays wet, minutes. */
  readonly wetMinutes: number;
  /** The folder that is the table where printed sheets are put. */
  readonly tray?: string | undefined;
}

export interface PrinterService {
  readonly port: number;
  close(): Promise<void>;
}

const LARGEST = 100_000_000;

/**
 * Opens a stand-in printer on loopback: `POST /print` takes a PDF and tells what came out, `POST /fault` lets the next
 * sheet go wrong, `GET /` shows the sheets of the day.
 */
export async function servePrinter({
  port,
  seed,
  wetMinutes,
  tray,
}: PrinterOptions): Promise<PrinterService> {
  const sheets: PrintedSheet[] = [];
  let fault: PrintFault | null = null;
  const server = createServer((request, reply) => {
    const answer = (status: number, body: object) =>
      reply.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
    if (request.method === 'POST' && request.url === '/print') {
      void readBody(request, LARGEST).then((file) => {
        try {
          if (!file) throw new PrintError('the file is too large');
          const sheetNumber = sheets.length + 1;
          const sheet = printFile(file, { seed, sheetNumber, wetMinutes, fault, now: new Date() });
          fault = null;
          sheets.push(sheet);
          if (tray) layInTray(tray, sheetNumber, sheet);
          answer(201, sheet);
        } catch (error) {
          if (!(error instanceof PrintError)) throw error;
          answer(422, { reason: error.message });
        }
      });
      return;
    }
    const wanted = PRINT_FAULTS.find((one) => request.url === `/fault/${one}`);
    if (request.method === 'POST' && wanted) {
      fault = wanted;
      answer(200, { fault });
      return;
    }
    reply.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(writePage(sheets));
  });
  return {
    port: await listen(server, port),
    close: () => new Promise((resolve) => server.close(() => resolve())),
  };
}

function writePage(sheets: readonly PrintedSheet[]): string {
  const rows = sheets
    .toReversed()
    .map(
      ({ widthMm, heightMm, scale, wetUntil, trouble }) =>
        `<tr><td>${widthMm.toFixed(0)} × ${heightMm.toFixed(0)} mm<td>${(scale * 100).toFixed(2)} %<td>wet until ${wetUntil.slice(11, 16)} UTC<td>${trouble}</tr>`,
    )
    .join('');
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>Stand-in printer</title><style>body{font:17px/1.45 system-ui,sans-serif;background:#f5f2ea;color:#1e2a32;margin:1.5rem}td{padding:.2rem 1rem .2rem 0}</style><h1>Stand-in printer</h1><p>${sheets.length} sheets today.</p><table>${rows}</table></html>`;
}
