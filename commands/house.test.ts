import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import { ROOT } from '#commands/homeFolder.ts';

/** What the house is said to be, held to what it is. */
const ROOMS = ['core', 'store', 'server', 'web', 'devices', 'demo', 'e2e', 'commands', 'benchmarks'];
const files = ROOMS.flatMap((room) =>
  readdirSync(join(ROOT, room), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.tsx?$/.test(name))
    .map((name) => `${room}/${name}`),
);
const textOf = (file: string) => readFileSync(join(ROOT, file), 'utf8');
const importsOf = (file: string) =>
  ts
    .preProcessFile(textOf(file), true, true)
    .importedFiles.map(({ fileName }) => fileName)
    .filter((name) => name.startsWith('#'))
    .map((name) => name.slice(1));

describe('files', () => {
  it('import each other in no circle', () => {
    const ways = new Map(files.map((file) => [file, importsOf(file)]));
    const done = new Set<string>();
    const circles: string[] = [];
    const walk = (file: string, path: readonly string[]): void => {
      if (path.includes(file)) circles.push([...path.slice(path.indexOf(file)), file].join(' → '));
      if (path.includes(file) || done.has(file)) return;
      for (const next of ways.get(file) ?? []) walk(next, [...path, file]);
      done.add(file);
    };
    for (const file of files) walk(file, []);
    expect(circles).toEqual([]);
  });
});

describe('the rooms of core', () => {
  it('stand in README in the order that lint holds, each with a sentence, and none is missing', async () => {
    const { CORE_ROOMS } = (await import(join(ROOT, 'eslint.config.js'))) as { CORE_ROOMS: string[] };
    const table = textOf('README.md').split('| room | what it is for |')[1]?.split('\n\n')[0] ?? '';
    const rows = [...table.matchAll(/^\| `(\w+)` \| (.+) \|$/gm)];
    expect(rows.map(([, room]) => room)).toEqual(CORE_ROOMS);
    const folders = readdirSync(join(ROOT, 'core'), { withFileTypes: true })
      .filter((entry) => entry.isDirectory() && entry.name !== 'tests')
      .map(({ name }) => name);
    expect(folders.toSorted()).toEqual(CORE_ROOMS.toSorted());
  });
});

describe('what the documents name', () => {
  const documents = [
    'README.md',
    'core/GLOSSARY.md',
    ...readdirSync(join(ROOT, 'docs')).map((name) => `docs/${name}`),
  ];

  it.each(documents.filter((name) => name.endsWith('.md')))('in %s is there', (document) => {
    const named = [
      ...textOf(document).matchAll(
        /`((?:core|store|server|web|devices|demo|e2e|commands|benchmarks)\/[\w./-]+)`/g,
      ),
    ];
    const isThere = (path: string) =>
      files.includes(path) ||
      files.some((file) => file.startsWith(path.replace(/\/?$/, '/'))) ||
      isFile(path);
    expect(named.map(([, path]) => path as string).filter((path) => !isThere(path))).toEqual([]);
  });
});

function isFile(path: string): boolean {
  try {
    return textOf(path).length > 0;
  } catch {
    return false;
  }
}
