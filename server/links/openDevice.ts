import { constants } from 'node:fs';
import { open, type FileHandle } from 'node:fs/promises';
import { AppError } from '#core/errors/appError.ts';
import { codeOf, deviceProblem, deviceWords } from '#server/links/linkProblem.ts';
import type { Channel, ChannelEnd } from '#server/links/link.ts';

/** A device that is full is tried again so soon. */
const FULL_MS = 20;

/**
 * Opens a channel to a device file, such as a cutter on USB that shows up as a printer device. Nothing comes back.
 *
 * @throws AppError `deviceUnreachable` or `deviceBusy`, with what to do about it
 */
export async function openDevice(path: string): Promise<Channel> {
  let file: FileHandle;
  try {
    // Without waiting: a device that takes nothing must not hold the whole server.
    file = await open(path, constants.O_WRONLY | constants.O_NONBLOCK | constants.O_NOCTTY);
  } catch (problem) {
    throw deviceProblem(problem, path);
  }
  const about = await file.stat();
  if (!about.isCharacterDevice() && !about.isFIFO()) {
    await file.close();
    throw new AppError('deviceUnreachable', `${path} is no device that a machine is behind.`);
  }
  return channelOf(file, path);
}

function channelOf(file: FileHandle, path: string): Channel {
  let isCut = false;
  let finish: (end: ChannelEnd) => void = () => undefined;
  const ended = new Promise<ChannelEnd>((resolve) => (finish = resolve));
  const close = async (end: ChannelEnd) => {
    isCut = true;
    await file.close().catch(() => undefined);
    finish(end);
  };
  const write = async (text: string) => {
    let left = Buffer.from(text, 'latin1');
    while (left.length > 0) {
      if (isCut) throw new AppError('deviceUnreachable', `The link to ${path} was closed.`);
      try {
        const { bytesWritten } = await file.write(left);
        left = left.subarray(bytesWritten);
      } catch (problem) {
        if (codeOf(problem) !== 'EAGAIN') {
          await close({ kind: 'lost', reason: deviceWords(problem, path) });
          throw deviceProblem(problem, path);
        }
        await new Promise((resolve) => setTimeout(resolve, FULL_MS));
      }
    }
  };
  return {
    ended,
    write,
    undelivered: () => Promise.resolve(null),
    onLine: () => undefined,
    end: () => close({ kind: 'closed' }),
    cut: () => void close({ kind: 'closed' }),
  };
}
