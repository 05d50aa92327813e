import { readdirSync, readFileSync } from 'node:fs';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import * as samples from '#core/tests/exampleScope.ts';
import { fitKnowledge } from '#core/knowledge/fitKnowledge.ts';
import { COMMON_PRIORS } from '#core/threshold/thresholdPriors.ts';

/** Examples in docstrings run: `call // result` is worked out and compared, or the docstring lies. */
interface Example {
  readonly file: string;
  readonly name: string;
  readonly call: string;
  readonly result: string;
}

/** What examples may name beside the exports of their own file. */
const scope: Readonly<Record<string, unknown>> = { ...samples, fitKnowledge, COMMON_PRIORS };

const root = new URL('../', import.meta.url);
const files = readdirSync(root, { recursive: true, encoding: 'utf8' }).filter(
  (name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && !name.startsWith('tests'),
);
const written = files.flatMap(readExamples);
const examples = written.filter(canRun);

describe('an example in a docstring', () => {
  it.each(examples.map((one) => [one.name, one] as const))('of %s says what comes out', async (_, one) => {
    const module = (await import(new URL(one.file, root).href)) as Readonly<Record<string, unknown>>;
    const known = { ...scope, ...module };
    const names = Object.keys(known);
    const run = (code: string): unknown =>
      new Function(...names, `return (${code});`)(...names.map((name) => known[name]));
    const got = run(one.call);
    const wanted = run(one.result);
    if (typeof wanted === 'number') expect(got).toBeCloseTo(wanted, decimalsOf(one.result));
    else if (typeof wanted === 'object' && wanted !== null) expect(plain(got)).toMatchObject(wanted);
    else expect(got).toBe(wanted);
  });

  it('stands at every exported function of core, and runs', () => {
    const silent = written.filter((one) => !examples.includes(one));
    expect(silent.map(({ file, name }) => `${file}: ${name}`)).toEqual([]);
    expect(examples.length).toBeGreaterThan(350);
  });
});

function readExamples(file: string): readonly Example[] {
  const source = ts.createSourceFile(
    file,
    readFileSync(new URL(file, root), 'utf8'),
    ts.ScriptTarget.Latest,
    true,
  );
  return source.statements.flatMap((statement): readonly Example[] => {
    if (!ts.isFunctionDeclaration(statement) || !statement.name) return [];
    const isExported = statement.modifiers?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword) ?? false;
    if (!isExported) return [];
    const tag = ts.getJSDocTags(statement).find(({ tagName }) => tagName.text === 'example');
    const text = ts.getTextOfJSDocComment(tag?.comment)?.replace(/\s+/g, ' ') ?? '';
    const [call = '', result = ''] = text.split(' // ');
    return [{ file, name: statement.name.text, call, result }];
  });
}

/** Both sides are JavaScript, and the result is a plain value. */
function canRun({ file, call, result }: Example): boolean {
  const isCode = (code: string) => {
    const { diagnostics = [] } = ts.transpileModule(`(${code});`, { reportDiagnostics: true });
    return code !== '' && diagnostics.length === 0;
  };
  const isValue = /^(-?[\d.]+|'.*'|\[.*\]|\{.*\}|true|false|null)$/.test(result);
  return (
    isValue &&
    isCode(call) &&
    isCode(result) &&
    !hasUnknownNames(call, file) &&
    !hasUnknownNames(result, file)
  );
}

/** Names that are neither exported beside the function nor part of the language make it a sketch. */
function hasUnknownNames(code: string, file: string): boolean {
  const known = new Set([
    'Date',
    'Float64Array',
    'Map',
    'Math',
    'Set',
    'undefined',
    ...Object.keys(scope),
    ...exportsOf(file),
  ]);
  const source = ts.createSourceFile('example.ts', `(${code});`, ts.ScriptTarget.Latest, true);
  let isUnknown = /…|\.\.\.(?![\w({[])/.test(code);
  const visit = (node: ts.Node): void => {
    if (ts.isIdentifier(node) && isFree(node) && !known.has(node.text)) isUnknown = true;
    ts.forEachChild(node, visit);
  };
  visit(source);
  return isUnknown;
}

function exportsOf(file: string): readonly string[] {
  const text = readFileSync(new URL(file, root), 'utf8');
  return [...text.matchAll(/^export (?:async )?(?:function\*?|const) (\w+)/gm)].map(
    ([, name]) => name as string,
  );
}

function isFree(node: ts.Identifier): boolean {
  const { parent } = node;
  if (ts.isPropertyAccessExpression(parent) && parent.name === node) return false;
  if (ts.isPropertyAssignment(parent) && parent.name === node) return false;
  if (ts.isBindingElement(parent) || ts.isParameter(parent)) return false;
  return !ts.findAncestor(node, (above) => ts.isArrowFunction(above));
}

function decimalsOf(figure: string): number {
  return (figure.split('.')[1] ?? '').length;
}

/** Typed arrays as plain ones, so that they compare. */
function plain(value: unknown): unknown {
  return ArrayBuffer.isView(value) ? [...(value as unknown as Iterable<number>)] : value;
}
