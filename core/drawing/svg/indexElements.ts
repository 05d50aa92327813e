import type { XmlElement } from '#core/drawing/svg/xmlTree.ts';

/** What is looked up all over a drawing. */
export interface ElementIndex {
  /** The first element of each id. */
  readonly byId: ReadonlyMap<string, XmlElement>;
  /** The style sheets, one after another. */
  readonly css: string;
  readonly count: number;
}

/**
 * Walks through all elements once.
 *
 * @example indexElements({ name: 'svg', attributes: { id: 'a' }, children: [], text: '' }).count // 1
 */
export function indexElements(root: XmlElement): ElementIndex {
  const byId = new Map<string, XmlElement>();
  const css: string[] = [];
  const visit = (element: XmlElement): number => {
    const { id } = element.attributes;
    if (id !== undefined && !byId.has(id)) byId.set(id, element);
    if (element.name === 'style') css.push(element.text);
    return element.children.reduce((sum, child) => sum + visit(child), 1);
  };
  const count = visit(root);
  return { byId, css: css.join('\n'), count };
}
