import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { expect } from 'vitest';
import { ADDRESS, api, arrive, go, visit, type Visitor } from '#e2e/support/app.ts';
import type { JobReply } from '#web/schemas/job.ts';

/** A visitor who opens drawings and takes files away, with a folder for them. */
export interface Drawer {
  readonly visitor: Visitor;
  readonly folder: string;
  /** Opens a drawing as a new job. @returns its id */
  open(name: string, text: string): Promise<number>;
  step(name: string): Promise<void>;
  /** Changes are counted: waits until so many are kept. */
  kept(id: number, least: number): Promise<void>;
  /** Fetches a file. @returns where it lies */
  fetchFile(path: string, name: string): Promise<string>;
  leave(): Promise<void>;
}

export async function drawAs(name: string, machineId: number): Promise<Drawer> {
  const folder = mkdtempSync(join(tmpdir(), 'drawing-'));
  const visitor = await visit(name, machineId);
  const { page } = visitor;
  return {
    visitor,
    folder,
    open: async (file, text) => {
      await go(page, '/jobs');
      const buffer = Buffer.from(text);
      await page.locator('input[type=file]').setInputFiles({ name: file, mimeType: 'text/plain', buffer });
      await arrive(page, /^\/jobs\/\d+$/);
      await page.getByRole('tab', { name: /Roles/ }).waitFor();
      return Number(/\d+$/.exec(new URL(page.url()).pathname)?.[0]);
    },
    step: (step) => page.getByRole('tab', { name: new RegExp(`\\d ${step}`) }).click(),
    kept: async (id, least) => {
      await expect
        .poll(async () => (await api<JobReply>(`/api/jobs/${id}`)).reply.version)
        .toBeGreaterThanOrEqual(least);
    },
    fetchFile: async (path, file) => {
      const reply = await fetch(`${ADDRESS}${path}`);
      expect(reply.status).toBe(200);
      const at = join(folder, file);
      writeFileSync(at, Buffer.from(await reply.arrayBuffer()));
      return at;
    },
    leave: async () => {
      await visitor.leave();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** The id of a material's state. */
export async function conditionOf(name: string, kind: string): Promise<number> {
  const { reply } =
    await api<{ name: string; conditions: { id: number; kind: string }[] }[]>('/api/materials');
  const conditions = reply.find((one) => one.name === name)?.conditions;
  const condition = conditions?.find((one) => one.kind === kind);
  if (!condition) throw new Error(`there is no ${name}, ${kind}`);
  return condition.id;
}

/** Runs Debian's Python, which has python3-ezdxf. */
export function python(script: string, ...rest: string[]): string {
  return execFileSync('/usr/bin/python3', ['-c', script, ...rest], { encoding: 'utf8' });
}

/** Dark pixels of a picture as a box, in mm. */
export function inkBox(
  file: string,
  dotsPerMm: number,
  isInk = (r: number, g: number, b: number) => r + g + b < 200,
) {
  const { width, height, data } = PNG.sync.read(readFileSync(file));
  let [left, top, right, bottom] = [width, height, 0, 0];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * 4;
      if (!isInk(data[at] ?? 0, data[at + 1] ?? 0, data[at + 2] ?? 0)) continue;
      left = Math.min(left, x);
      right = Math.max(right, x + 1);
      top = Math.min(top, y);
      bottom = Math.max(bottom, y + 1);
    }
  }
  return {
    left: left / dotsPerMm,
    top: top / dotsPerMm,
    right: right / dotsPerMm,
    bottom: bottom / dotsPerMm,
  };
}
