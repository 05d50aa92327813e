import { isPortFree } from '#commands/ports/freePort.ts';

/**
 * The port that the application is to listen on, from FEATHER_PORT or 4310.
 *
 * @throws Error in plain words when it is no port or somebody listens there
 */
export async function requirePort(): Promise<number> {
  const wanted = process.env['FEATHER_PORT'] ?? '4310';
  const port = Number(wanted);
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Error(`FEATHER_PORT is not a port: ${wanted}`);
  if (await isPortFree(port)) return port;
  throw new Error(
    `Port ${port} is taken by another program. Choose another, such as FEATHER_PORT=${port + 1}.`,
  );
}
