import { createServer } from 'node:net';
import { expect, test } from 'vitest';
import { findFreePort, PortTakenError, startOnFreePorts } from '#commands/ports/freePort.ts';

test('a port is given out once, though nothing listens there yet', async () => {
  const ports = await Promise.all(Array.from({ length: 300 }, findFreePort));
  expect(new Set(ports).size).toBe(300);
});

test('what finds its port taken starts on another; other failures are told at once', async () => {
  const tried: number[] = [];
  const listen = ({ port }: { port: number }) =>
    new Promise<number>((resolve, reject) => {
      tried.push(port);
      // The first time somebody else is quicker.
      if (tried.length === 1) return reject(new PortTakenError(`${port}`));
      const server = createServer().listen(port, '127.0.0.1', () => server.close(() => resolve(port)));
    });
  const port = await startOnFreePorts(['port'], listen);
  expect(tried).toEqual([tried[0], port]);
  expect(port).not.toBe(tried[0]);

  let starts = 0;
  const isBroken = () => {
    starts += 1;
    return Promise.reject(new Error('no disk'));
  };
  await expect(startOnFreePorts(['port'], isBroken)).rejects.toThrow('no disk');
  expect(starts).toBe(1);
});

test('three times taken is enough', async () => {
  let starts = 0;
  const isTaken = ({ port }: { port: number }) => {
    starts += 1;
    return Promise.reject(new PortTakenError(`${port} is taken`));
  };
  await expect(startOnFreePorts(['port'], isTaken)).rejects.toThrow('is taken');
  expect(starts).toBe(3);
});
