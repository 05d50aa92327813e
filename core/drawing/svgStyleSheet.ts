/** Declarations of style by property. */
export type Declarations = Readonly<Record<string, string>>;

/** A rule for elements of a name, id or classes, all of which must hold. */
interface StyleRule {
  readonly name: string | null;
  readonly id: string | null;
  readonly classes: readonly string[];
  readonly declarations: Declarations;
}

/** Rules of a drawing, the weakest first. */
export interface StyleSheet {
  readonly rules: readonly StyleRule[];
  /** Rules whose selectors look at neighbours or states, which are not followed. */
  readonly unread: number;
}

export const NO_STYLE_SHEET: StyleSheet = { rules: [], unread: 0 };

const SIMPLE = /^([a-z*][\w-]*)?((?:[.#][\w-]+)*)$/i;

/**
 * Reads style rules whose selectors name an element, an id, classes, or several of them together. Rules within
 * `@media` and other at-rules are left out. Later rules win over earlier ones of the same strength.
 *
 * Source of the strength: W3C Selectors 3, section 9.
 * @example readStyleSheet('.cut, path#edge { stroke: red }').rules.length // 2
 */
export function readStyleSheet(css: string): StyleSheet {
  const rules: (StyleRule & { readonly strength: number })[] = [];
  let unread = 0;
  const plain = css
    .replace(/\/\*[\s\S]*?\*\//g, '')
    .replace(/@[^{;]*(;|\{(?:[^{}]*\{[^{}]*\})*[^{}]*\})/g, '');
  for (const [, selectors = '', body = ''] of plain.matchAll(/([^{}]+)\{([^{}]*)\}/g)) {
    const declarations = readDeclarations(body);
    for (const selector of selectors.split(',')) {
      const match = SIMPLE.exec(selector.trim());
      if (!match || selector.trim() === '') {
        unread++;
        continue;
      }
      const parts = (match[2] ?? '').match(/[.#][\w-]+/g) ?? [];
      const named = match[1] && match[1] !== '*' ? match[1] : null;
      const ids = parts.filter((part) => part.startsWith('#'));
      const classes = parts.filter((part) => part.startsWith('.')).map((part) => part.slice(1));
      const strength = ids.length * 10_000 + classes.length * 100 + (named ? 1 : 0);
      rules.push({ name: named, id: ids[0]?.slice(1) ?? null, classes, declarations, strength });
    }
  }
  return { rules: [...rules].sort((a, b) => a.strength - b.strength), unread };
}

/** What the rules say of an element, or `null` when none speaks of it. */
export function matchRules(
  sheet: StyleSheet,
  name: string,
  attributes: Readonly<Record<string, string>>,
): Declarations | null {
  if (sheet.rules.length === 0) return null;
  const classes = attributes['class']?.split(/\s+/) ?? [];
  let found: Record<string, string> | null = null;
  for (const rule of sheet.rules) {
    if (rule.name && rule.name !== name) continue;
    if (rule.id && rule.id !== attributes['id']) continue;
    if (!rule.classes.every((one) => classes.includes(one))) continue;
    found = Object.assign(found ?? {}, rule.declarations);
  }
  return found;
}

/** The declarations of a style attribute or of a rule's body. */
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
