import { SerialPort } from 'serialport';
import type { SerialLink } from '#core/station/machine.ts';
import { deviceProblem, deviceWords } from '#server/links/linkProblem.ts';
import type { Channel, ChannelEnd } from '#server/links/link.ts';
import { splitLines } from '#server/links/splitLines.ts';

/**
 * Opens a channel over a serial line: eight bits, no parity, one stop bit.
 *
 * @throws AppError `deviceUnreachable` or `deviceBusy`, with what to do about it
 */
export async function openSerial({ path, baudRate, handshake }: Omit<SerialLink, 'kind'>): Promise<Channel> {
  const port = new SerialPort({
    path,
    baudRate,
    rtscts: handshake === 'wires',
    xon: handshake === 'characters',
    xoff: handshake === 'characters',
    autoOpen: false,
  });
  await new Promise<void>((resolve, reject) =>
    port.open((problem) => (problem ? reject(deviceProblem(problem, path)) : resolve())),
  );
  return channelOf(port, path);
}

function channelOf(port: SerialPort, path: string): Channel {
  let isClosing = false;
  let lost = '';
  port.resume();
  port.on('error', (problem) => (lost ||= deviceWords(problem, path)));
  const ended = new Promise<ChannelEnd>((resolve) => {
    port.once('close', (problem: Error | null) => {
      if (isClosing && !lost) resolve({ kind: 'closed' });
      else resolve({ kind: 'lost', reason: lost || deviceWords(problem ?? GONE, path) });
    });
  });
  const gone = () => deviceProblem(lost ? new Error(lost) : GONE, path);
  watchHangUp(port);
  return {
    ended,
    undelivered: () => Promise.resolve(null),
    onLine: (listener) => void port.on('data', splitLines(listener)),
    write: (text) =>
      new Promise((resolve, reject) => {
        if (!port.isOpen) return reject(gone());
        port.write(text, 'latin1', (problem) => {
          if (problem) return reject(gone());
          // Written is not sent: a slow line holds bytes that a stop must be able to drop.
          port.drain((trouble) => (trouble ? reject(gone()) : resolve()));
        });
      }),
    end: async () => {
      isClosing = true;
      if (port.isOpen) port.close();
      await ended;
    },
    cut: () => {
      isClosing = true;
      if (port.isOpen) port.flush(() => port.close());
    },
  };
}

/** What the system says of a line with nothing at its other end. */
const GONE = new Error('input/output error');
/** How often a line is asked whether it is still there, ms. */
const ASK_EVERY_MS = 500;

/**
 * Closes a line that was hung up. The driver hears of it by polling; a line that is pulled while bytes are
 * being read ends with nothing left to read, and the driver goes on reading nothing, about one time in twenty
 * where the machine talks much. A line that is gone has no speed any more: that is asked now and then.
 */
function watchHangUp(port: SerialPort): void {
  let wasTold = false;
  const ask = async () => {
    if (!port.isOpen || port.closing) return;
    try {
      await port.port?.getBaudRate();
      wasTold = true;
    } catch {
      // A line that never told its speed says nothing by not telling it.
      if (!wasTold || !port.isOpen || port.closing) return;
      port.close();
    }
  };
  void ask();
  const timer = setInterval(() => void ask(), ASK_EVERY_MS);
  port.once('close', () => clearInterval(timer));
}
