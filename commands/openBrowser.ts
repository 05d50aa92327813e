import { mkdtempSync } from 'node:fs';
import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type BrowserContext, type BrowserServer } from 'playwright-core';

const EXECUTABLE = '/usr/bin/chromium';
const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

interface BrowserOptions {
  /** Besides those that every one has. */
  readonly flags?: readonly string[];
  /** How it writes dates and numbers; as the machine does where nothing is said. */
  readonly locale?: string;
}

/** A headless Chromium with a fresh profile of a given size; call `close` when done. */
export async function openBrowser(
  size: { readonly width: number; readonly height: number },
  { flags = [], locale }: BrowserOptions = {},
): Promise<BrowserContext> {
  const profile = mkdtempSync(join(tmpdir(), 'feather-browser-'));
  const context = await chromium.launchPersistentContext(profile, {
    executablePath: EXECUTABLE,
    headless: true,
    args: [...FLAGS, ...flags],
    viewport: size,
    acceptDownloads: true,
    ...(locale ? { locale } : {}),
  });
  // The browser may still be writing its last files; a profile left in the temporary folder harms nobody.
  context.on(
    'close',
    () => void rm(profile, { recursive: true, force: true, maxRetries: 20 }).catch(() => undefined),
  );
  return context;
}

/** A headless Chromium for many visitors, each with storage of their own, who connect to it by its address. */
export function serveBrowser(): Promise<BrowserServer> {
  return chromium.launchServer({ executablePath: EXECUTABLE, headless: true, args: FLAGS });
}
