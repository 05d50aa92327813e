import type { Socket } from 'node:net';
import { HpglDecoder } from '#devices/cutter/decodeHpgl.ts';
import { DecodeError } from '#devices/cutter/instruction.ts';
import { JobWork, line } from '#devices/cutter/jobWork.ts';
import type { CutterState } from '#devices/cutter/obeyPanel.ts';

/** Instructions that wait to be done: a cutter takes no more bytes until there is room. */
const BUFFER = 12;
const SLOW_MS = 400;

/** One job in HPGL on its link: takes bytes while there is room, and says what happens as one JSON event a line. */
export function talkHpgl(socket: Socket, state: CutterState): void {
  const decoder = new HpglDecoder();
  const work: JobWork = new JobWork(
    {
      tell: (event) => {
        const isSlow = state.faults.list().some(({ fault }) => fault === 'slowLink');
        const write = () => socket.writable && socket.write(line(event));
        if (isSlow && event.event === 'position') setTimeout(write, SLOW_MS);
        else write();
      },
      makeRoom: () => {
        if (work.waiting < BUFFER / 2) socket.resume();
      },
      hangUp: () => socket.end(),
      breakLink: () => socket.destroy(),
    },
    state,
  );
  socket.on('data', (bytes) => {
    try {
      work.add(decoder.push(bytes));
      if (work.waiting > BUFFER) socket.pause();
    } catch (error) {
      if (!(error instanceof DecodeError)) throw error;
      work.drop(error.message);
    }
  });
  socket.on('close', () => work.breakOff());
  socket.on('error', () => work.breakOff());
}
