import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type BrowserContext } from 'playwright-core';

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** A headless Chromium with a fresh profile of a given size; call `close` when done. */
export async function openBrowser(size: {
  readonly width: number;
  readonly height: number;
}): Promise<BrowserContext> {
  const profile = mkdtempSync(join(tmpdir(), 'feather-browser-'));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: '/usr/bin/chromium',
    headless: true,
    args: FLAGS,
    viewport: size,
    acceptDownloads: true,
  });
  context.on('close', () =>
    rmSync(profile, { recursive: true, force: true, maxRetries: 10, retryDelay: 100 }),
  );
  return context;
}
