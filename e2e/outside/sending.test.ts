import { afterAll, describe, expect, it } from 'vitest';
import type { Block } from '#core/protocol/machineLanguage.ts';
import { TimeGiven } from '#store/tests/timeGiven.ts';
import { oddMachine, type OddMachine } from '#e2e/support/oddMachine.ts';
import { openTcp } from '#server/links/openTcp.ts';
import { Control } from '#server/runs/control.ts';
import { streamOut } from '#server/runs/streamOut.ts';

/** Letting a file out over real sockets to machines that take it badly. */
const machines: OddMachine[] = [];
afterAll(() => Promise.all(machines.map((machine) => machine.close())));

/** So much that no buffer between the two holds it. */
const blocks: readonly Block[] = Array.from({ length: 12_000 }, (_, index) => ({
  text: `PD${'1,2,'.repeat(400)}3,4;\n`,
  strokesDone: index + 1,
}));
const quick = { least: () => 0, most: () => 0 };

async function send(behave: Parameters<typeof oddMachine>[0], seconds = quick) {
  const machine = await oddMachine(behave);
  machines.push(machine);
  const channel = await openTcp('127.0.0.1', machine.port);
  const control = new Control('run-1/0/0/x', 0);
  control.attach(channel);
  const time = new TimeGiven();
  const end = streamOut({ blocks, channel, control, seconds, watching: null }).then((how) => ({
    how,
    ms: time.ms(),
  }));
  return { machine, control, end };
}

// Each waits ten seconds for a machine of its own: together.
describe.concurrent('a machine that takes a file badly', () => {
  it('takes nothing any more: noticed within 10 s after it should have needed more, and what went out is known', async () => {
    const { control, end } = await send((socket) => socket.pause());
    const { how, ms } = await end;
    expect(how).toMatchObject({ kind: 'silent', reason: /takes nothing any more/ });
    expect(ms).toBeLessThan(12_000);
    expect(control.outTo()).toBeGreaterThan(0);
    expect(control.outTo()).toBeLessThan(blocks.length);
  });

  it('takes a byte a second: noticed the same', async () => {
    const { end } = await send((socket) => {
      socket.pause();
      const drip = setInterval(() => socket.read(1), 1000);
      socket.on('close', () => clearInterval(drip));
    });
    expect((await end).how.kind).toBe('silent');
  });

  it('busy with what it has is waited for', async () => {
    const { control, end } = await send((socket) => socket.pause(), { least: () => 0, most: () => 3600 });
    const early = await Promise.race([
      end,
      new Promise((resolve) => setTimeout(resolve, 11_500, 'still sending')),
    ]);
    expect(early).toBe('still sending');
    control.halt();
    expect((await end).how.kind).toBe('halted');
  });
});

describe('a machine whose buffer is full', () => {
  it('is stopped: nothing more leaves, and what had not left is dropped', async () => {
    const { machine, control, end } = await send((socket) => socket.pause());
    await new Promise((resolve) => setTimeout(resolve, 500));
    const time = new TimeGiven();
    control.halt();
    expect((await end).how.kind).toBe('halted');
    expect(time.ms()).toBeLessThan(500);
    const out = control.outTo();
    await new Promise((resolve) => setTimeout(resolve, 300));
    expect(control.outTo()).toBe(out);
    expect(machine.received().length).toBeLessThan(out * (blocks[0]!.text.length + 1));
  });
});
