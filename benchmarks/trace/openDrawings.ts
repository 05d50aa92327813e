import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { ROOT } from '#commands/homeFolder.ts';

/** Open sets of emoji and icons, as the registry has them; each drawing is SVG without its root. */
export const SETS = [
  { name: '@iconify-json/noto', version: '1.2.9' },
  { name: '@iconify-json/fxemoji', version: '1.2.2' },
  { name: '@iconify-json/mdi', version: '1.2.3' },
] as const;
/** What is not drawn by filled outlines alone has no outlines to compare with. */
const OTHER = /stroke|clip-path|clipPath|mask|filter|opacity|<use|<image|<text|evenodd|style=/;

/** A drawing of a set: what stands inside its root, and the box it is drawn in. */
export interface OpenDrawing {
  readonly name: string;
  readonly body: string;
  readonly width: number;
  readonly height: number;
}

const collection = z.object({
  width: z.number().optional(),
  height: z.number().optional(),
  icons: z.record(
    z.string(),
    z.object({ body: z.string(), width: z.number().optional(), height: z.number().optional() }),
  ),
});

/** So many drawings of a set, evenly over all that are filled outlines. The set is fetched once. */
export function openDrawings({ name }: (typeof SETS)[number], count: number): readonly OpenDrawing[] {
  const folder = join(ROOT, '.feather/open-sets');
  const file = join(folder, 'node_modules', name, 'icons.json');
  if (!existsSync(file)) {
    mkdirSync(folder, { recursive: true });
    const given = ['install', '--no-save', '--no-audit', '--no-fund', '--prefix', folder];
    execFileSync('npm', [...given, ...SETS.map((set) => `${set.name}@${set.version}`)], { stdio: 'ignore' });
  }
  const set = collection.parse(JSON.parse(readFileSync(file, 'utf8')));
  const drawn = Object.entries(set.icons)
    .filter(([, { body }]) => !OTHER.test(body))
    .map(([own, { body, width, height }]) => ({
      name: own,
      body,
      width: width ?? set.width ?? 16,
      height: height ?? set.height ?? 16,
    }));
  const step = drawn.length / count;
  return Array.from({ length: count }, (_, at) => drawn[Math.floor(at * step)] as OpenDrawing);
}
