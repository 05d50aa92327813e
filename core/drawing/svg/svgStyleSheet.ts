import { STEPS, type ReadBudget } from '#core/drawing/readBudget.ts';

/** Declarations of style by property. */
export type Declarations = Readonly<Record<string, string>>;

/** A rule for elements of a name, id or classes, all of which must hold. */
interface StyleRule {
  readonly name: string | null;
  readonly id: string | null;
  readonly classes: readonly string[];
  readonly declarations: Declarations;
  readonly strength: number;
  /** Its place in the file. */
  readonly order: number;
}

/** Rules of a drawing by what they ask for, each list in order of strength, the weakest first. */
export interface StyleSheet {
  readonly byId: ReadonlyMap<string, readonly StyleRule[]>;
  readonly byClass: ReadonlyMap<string, readonly StyleRule[]>;
  readonly byName: ReadonlyMap<string, readonly StyleRule[]>;
  /** Rules that every element may answer to. */
  readonly forAll: readonly StyleRule[];
  readonly count: number;
  /** Rules whose selectors look at neighbours or states, which are not followed. */
  readonly unread: number;
}

export const NO_STYLE_SHEET: StyleSheet = {
  byId: new Map(),
  byClass: new Map(),
  byName: new Map(),
  forAll: [],
  count: 0,
  unread: 0,
};

const SIMPLE = /^([a-z*][\w-]*)?((?:[.#][\w-]+)*)$/i;
/** No selector that names an element, an id and classes is longer. */
const MOST_SELECTOR = 400;

/**
 * Reads style rules whose selectors name an element, an id, classes, or several of them together. Rules within
 * `@media` and other at-rules are left out. Later rules win over earlier ones of the same strength.
 *
 * @param budget what reading may cost: a step a rule
 * Source of the strength: W3C Selectors 3, section 9.
 * @example readStyleSheet('.cut, path#edge { stroke: red }').count // 2
 */
export function readStyleSheet(css: string, budget: ReadBudget | null = null): StyleSheet {
  const rules: StyleRule[] = [];
  let unread = 0;
  for (const { selectors, body } of listBlocks(dropComments(css))) {
    const declarations = readDeclarations(body);
    for (const selector of selectors.split(',')) {
      budget?.spend(STEPS.element);
      const rule = readSelector(selector.trim(), declarations, rules.length);
      if (rule) rules.push(rule);
      else unread++;
    }
  }
  const byId = new Map<string, StyleRule[]>();
  const byClass = new Map<string, StyleRule[]>();
  const byName = new Map<string, StyleRule[]>();
  const forAll: StyleRule[] = [];
  for (const rule of rules.sort((a, b) => a.strength - b.strength || a.order - b.order)) {
    const { id, classes, name } = rule;
    if (id !== null) addTo(byId, id, rule);
    else if (classes[0] !== undefined) addTo(byClass, classes[0], rule);
    else if (name !== null) addTo(byName, name, rule);
    else forAll.push(rule);
  }
  return { byId, byClass, byName, forAll, count: rules.length, unread };
}

function addTo(lists: Map<string, StyleRule[]>, key: string, rule: StyleRule): void {
  const list = lists.get(key);
  if (list) list.push(rule);
  else lists.set(key, [rule]);
}

function readSelector(text: string, declarations: Declarations, order: number): StyleRule | null {
  const match = text.length > MOST_SELECTOR ? null : SIMPLE.exec(text);
  if (!match || text === '') return null;
  const parts = (match[2] ?? '').match(/[.#][\w-]+/g) ?? [];
  const name = match[1] && match[1] !== '*' ? match[1] : null;
  const ids = parts.filter((part) => part.startsWith('#'));
  const classes = parts.filter((part) => part.startsWith('.')).map((part) => part.slice(1));
  const strength = ids.length * 10_000 + classes.length * 100 + (name ? 1 : 0);
  return { name, id: ids[0]?.slice(1) ?? null, classes, declarations, strength, order };
}

/** The text without its comments; one that does not end takes the rest with it. */
function dropComments(css: string): string {
  const kept: string[] = [];
  let at = 0;
  for (let begin = css.indexOf('/*'); begin >= 0; begin = css.indexOf('/*', at)) {
    kept.push(css.slice(at, begin));
    const end = css.indexOf('*/', begin + 2);
    at = end < 0 ? css.length : end + 2;
  }
  kept.push(css.slice(at));
  return kept.join(' ');
}

/** Selectors and bodies of the rules that stand outside at-rules, in one walk through the text. */
function* listBlocks(css: string): Generator<{ readonly selectors: string; readonly body: string }> {
  let at = 0;
  for (let brace = css.indexOf('{'); brace >= 0; brace = css.indexOf('{', at)) {
    // What ends in a semicolon before a rule is an at-rule without a body.
    const before = css.slice(at, brace);
    const selectors = before.slice(before.lastIndexOf(';') + 1).trim();
    const end = selectors.startsWith('@') ? endOfBlock(css, brace) : css.indexOf('}', brace);
    at = end < 0 ? css.length : end + 1;
    if (!selectors.startsWith('@'))
      yield { selectors, body: css.slice(brace + 1, end < 0 ? css.length : end) };
  }
}

/** Where a block ends that may hold blocks; -1 when it does not. */
function endOfBlock(css: string, brace: number): number {
  let depth = 0;
  for (let at = brace; at < css.length; at++) {
    const code = css.charCodeAt(at);
    if (code === 0x7b) depth++;
    else if (code === 0x7d && --depth === 0) return at;
  }
  return -1;
}

const NO_RULES: readonly StyleRule[] = [];

/**
 * What the rules say of an element, or `null` when none speaks of it.
 *
 * @example matchRules(readStyleSheet('.cut { stroke: red }'), 'path', { class: 'cut' }) // { stroke: 'red' }
 */
export function matchRules(
  sheet: StyleSheet,
  name: string,
  attributes: Readonly<Record<string, string>>,
  budget: ReadBudget | null = null,
): Declarations | null {
  if (sheet.count === 0) return null;
  const { id = '', class: classText = '' } = attributes;
  const classes = new Set(classText.split(/\s+/).filter(Boolean));
  const candidates = [
    sheet.forAll,
    sheet.byName.get(name) ?? NO_RULES,
    ...[...classes].map((one) => sheet.byClass.get(one) ?? NO_RULES),
    sheet.byId.get(id) ?? NO_RULES,
  ].flat();
  budget?.spend(1 + candidates.length);
  const fitting = candidates.filter(
    (rule) =>
      (rule.name === null || rule.name === name) &&
      (rule.id === null || rule.id === id) &&
      rule.classes.every((one) => classes.has(one)),
  );
  if (fitting.length === 0) return null;
  fitting.sort((a, b) => a.strength - b.strength || a.order - b.order);
  return Object.assign({}, ...fitting.map(({ declarations }) => declarations)) as Declarations;
}

/**
 * The declarations of a style attribute or of a rule's body.
 *
 * @example readDeclarations('stroke: red; fill: none') // { stroke: 'red', fill: 'none' }
 */
export function readDeclarations(style: string): Declarations {
  const found: Record<string, string> = {};
  for (const declaration of style.split(';')) {
    const colon = declaration.indexOf(':');
    if (colon <= 0) continue;
    const value = declaration.slice(colon + 1).replace(/!\s*important\s*$/i, '');
    found[declaration.slice(0, colon).trim()] = value.trim();
  }
  return found;
}
