import { execFileSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { z } from 'zod';
import { ROOT } from '#commands/homeFolder.ts';

/** An open set of drawings in the registry. */
export interface OpenSet {
  readonly name: string;
  readonly version: string;
}

/** Emoji with gradients, with filters, and with strokes. */
export const EMOJI_SETS: readonly OpenSet[] = [
  { name: '@iconify-json/noto', version: '1.2.9' },
  { name: '@iconify-json/fluent-emoji', version: '1.2.7' },
  { name: '@iconify-json/openmoji', version: '1.2.29' },
];

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

/**
 * So many drawings of a set, evenly over all that are wanted. The set is fetched once.
 *
 * @param isWanted by what stands inside a drawing's root
 */
export function openDrawings(
  { name, version }: OpenSet,
  count: number,
  isWanted: (body: string) => boolean = () => true,
): readonly OpenDrawing[] {
  const folder = join(ROOT, '.feather/open-sets', `${name.replace(/\W+/g, '-')}-${version}`);
  const file = join(folder, 'node_modules', name, 'icons.json');
  if (!existsSync(file)) {
    mkdirSync(folder, { recursive: true });
    const given = ['install', '--no-save', '--no-audit', '--no-fund', '--prefix', folder];
    execFileSync('npm', [...given, `${name}@${version}`], { stdio: 'ignore' });
  }
  const set = collection.parse(JSON.parse(readFileSync(file, 'utf8')));
  const drawn = Object.entries(set.icons)
    .filter(([, { body }]) => isWanted(body))
    .map(([own, { body, width, height }]) => ({
      name: own,
      body,
      width: width ?? set.width ?? 16,
      height: height ?? set.height ?? 16,
    }));
  const step = drawn.length / Math.min(count, drawn.length);
  return Array.from(
    { length: Math.min(count, drawn.length) },
    (_, at) => drawn[Math.floor(at * step)] as OpenDrawing,
  );
}

/** A drawing as a file of its own. @param longestMm how long its longest side is */
export function writeOpenDrawing({ body, width, height }: OpenDrawing, longestMm: number): string {
  const perUnit = longestMm / Math.max(width, height);
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ` +
    `width="${width * perUnit}mm" height="${height * perUnit}mm" viewBox="0 0 ${width} ${height}">${body}</svg>`
  );
}
