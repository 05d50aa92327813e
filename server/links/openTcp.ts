import { connect, type Socket } from 'node:net';
import { AppError } from '#core/errors/appError.ts';
import type { Channel, ChannelEnd } from '#server/links/link.ts';
import { afterSilence } from '#server/links/hearing.ts';
import { undeliveredBytes } from '#server/links/undeliveredBytes.ts';
import { splitLines } from '#server/links/splitLines.ts';

const CONNECT_TIMEOUT_MS = 4_000;
/** Probes after so long without a sign from the other side. */
const KEEP_ALIVE_MS = 3_000;
/** Some machines hang up only when they have worked everything off: nobody waits for that. */
const HANG_UP_MS = 3_000;

/**
 * Opens a channel to an address on the network.
 *
 * @throws AppError `deviceUnreachable` when nothing answers there within 4 s
 */
export async function openTcp(host: string, port: number): Promise<Channel> {
  return channelOf(await connectTo(host, port));
}

/** A socket that is connected. @throws AppError `deviceUnreachable` */
export function connectTo(host: string, port: number): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port });
    const refuse = () => {
      socket.destroy();
      const words = `No cutter answers at ${host}, port ${port}. Is it on and connected?`;
      reject(new AppError('deviceUnreachable', words));
    };
    const cease = afterSilence(CONNECT_TIMEOUT_MS, refuse);
    socket.once('close', cease);
    socket.once('error', refuse);
    socket.once('connect', () => {
      cease();
      socket.off('error', refuse);
      socket.setNoDelay(true);
      socket.setKeepAlive(true, KEEP_ALIVE_MS);
      resolve(socket);
    });
  });
}

function channelOf(socket: Socket): Channel {
  let isClosing = false;
  let lost = '';
  // What comes back is read whether somebody listens or not: unread, the other side's end would go unnoticed.
  socket.resume();
  socket.on('error', (problem) => {
    lost =
      'code' in problem && problem.code === 'ECONNRESET' ? 'the machine broke the link' : 'the link broke';
    socket.destroy();
  });
  const ended = new Promise<ChannelEnd>((resolve) => {
    socket.once('close', () => {
      if (isClosing && !lost) resolve({ kind: 'closed' });
      else resolve({ kind: 'lost', reason: lost || 'the machine hung up' });
    });
  });
  return {
    ended,
    undelivered: () => undeliveredBytes(socket),
    onLine: (listener) => void socket.on('data', splitLines(listener)),
    write: (text) =>
      new Promise((resolve, reject) => {
        const gone = () => reject(new AppError('deviceUnreachable', 'The link to the cutter broke.'));
        if (!socket.writable) return gone();
        socket.write(text, 'latin1', (problem) => (problem ? gone() : resolve()));
      }),
    end: async () => {
      isClosing = true;
      socket.end();
      const timer = setTimeout(() => socket.destroy(), HANG_UP_MS);
      await ended;
      clearTimeout(timer);
    },
    cut: () => {
      isClosing = true;
      socket.resetAndDestroy();
    },
  };
}
