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

describe('a figure that says how near is near', () => {
  it('has a name of its own, or is one of those that all share', () => {
    const loose = files
      .filter((file) => file.startsWith('core/') && !/\.test\.|^core\/tests/.test(file))
      .flatMap((file) =>
        textOf(file)
          .split('\n')
          .filter((line) => /\b\d*e-\d+\b/.test(line.replace(/\/\/.*|^ *\*.*|\/\*.*/, '')))
          .filter((line) => !/^(export )?const [A-Z_]+ =|^ +\d: |^ +[a-z]\w+ = \d|^[-\d.e, ]+$/i.test(line))
          .map((line) => `${file}: ${line.trim()}`),
      );
    expect(loose).toEqual([]);
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

describe('words', () => {
  const named = files
    .filter((file) => file.startsWith('core/') && !/\.test\.|^core\/tests/.test(file))
    .flatMap((file) => [
      ...textOf(file).matchAll(/^export (?:async )?(?:function|const|class|interface|type) (\w+)/gm),
    ])
    .map(([, name]) => name as string);
  const wordsOf = (name: string) => name.match(/[A-Z]+(?![a-z])|[A-Z]?[a-z]+/g) ?? [];

  it('that are shortened stand in the glossary', () => {
    const glossary = new Set(
      textOf('core/GLOSSARY.md')
        .toLowerCase()
        .match(/[a-z]+/g),
    );
    const shortened = new Set(
      named
        .flatMap(wordsOf)
        .map((word) => word.toLowerCase())
        .filter((word) => !/[aeiouy]/.test(word)),
    );
    expect(shortened.size).toBeGreaterThan(8);
    expect([...shortened].filter((word) => !glossary.has(word))).toEqual([]);
  });

  it('stand there once each', () => {
    const terms = [...textOf('core/GLOSSARY.md').matchAll(/^\| (?!term \| meaning)([^|]+) \|/gm)].flatMap(
      ([, terms]) => (terms as string).split(', ').map((term) => term.trim()),
    );
    expect(terms.filter((term, index) => terms.indexOf(term) !== index)).toEqual([]);
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
