import { SaxesParser } from 'saxes';
import type { ReadProgress } from '#core/drawing/drawing.ts';
import { AppError } from '#core/errors/appError.ts';

/** One element. Text is kept only where `keepsText` asked for it. */
export interface XmlElement {
  /** Without its namespace prefix. */
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: readonly XmlElement[];
  readonly line: number;
  readonly text: string;
  /** Where its opening tag ends in the file, in characters. */
  readonly tagEnd: number;
  /** Where the whole element ends; 0 in a stream, which does not know it yet. */
  readonly to: number;
}

const CHUNK = 1 << 17;
const NONE: readonly XmlElement[] = [];

/** What happens while XML is read. Elements of a stream have no children and no text. */
export interface XmlListener {
  readonly open: (element: XmlElement) => void;
  /** @param to where the element ends in the file */
  readonly close: (to: number) => void;
  readonly text?: (words: string) => void;
}

/**
 * Reads XML and tells of every element as it begins and ends. Nothing outside the text is ever fetched; entities are
 * refused.
 *
 * @param maxDepth deepest nesting of elements
 * @throws AppError `badDrawing` with the line: not well-formed, entities, nested too deep
 * @example ((names) => (readXmlStream('<a><b/></a>', 9, { open: (element) => names.push(element.name), close: () => undefined }), names))([]) // ['a', 'b']
 */
export function readXmlStream(
  text: string,
  maxDepth: number,
  listener: XmlListener,
  onProgress?: ReadProgress,
): void {
  const parser = new SaxesParser();
  let depth = 0;
  parser.on('error', (error) => {
    throw new AppError('badDrawing', `this is not well-formed XML: ${error.message}`);
  });
  parser.on('doctype', (doctype) => {
    if (!/<!ENTITY/i.test(doctype)) return;
    throw new AppError('badDrawing', `line ${parser.line}: the file defines entities; they are not read`);
  });
  parser.on('opentag', (tag) => {
    const { line } = parser;
    if (depth++ > maxDepth) {
      throw new AppError('badDrawing', `line ${line}: groups are nested deeper than ${maxDepth}`);
    }
    const { name, attributes } = tag;
    listener.open({
      name: localName(name),
      attributes,
      children: NONE,
      line,
      text: '',
      tagEnd: parser.position,
      to: 0,
    });
  });
  parser.on('closetag', () => {
    depth--;
    listener.close(parser.position);
  });
  if (listener.text) {
    parser.on('text', listener.text);
    parser.on('cdata', listener.text);
  }
  for (let from = 0; from < text.length; from += CHUNK) {
    parser.write(text.slice(from, from + CHUNK));
    onProgress?.(Math.min(1, (from + CHUNK) / text.length));
  }
  parser.close();
}

/**
 * Reads XML into elements.
 *
 * @param keepsText names of elements whose text is wanted
 * @throws AppError `badDrawing` as {@link readXmlStream}, and for nothing at all
 * @example readXmlTree('<a><b/></a>', 9, new Set()).children.length // 1
 */
export function readXmlTree(
  text: string,
  maxDepth: number,
  keepsText: ReadonlySet<string>,
  onProgress?: ReadProgress,
): XmlElement {
  const open: OpenElement[] = [];
  let root: XmlElement | null = null;
  const listener: XmlListener = {
    open: (one) => {
      const element: OpenElement = { ...one, children: [] };
      const parent = open.at(-1);
      if (parent) parent.children.push(element);
      else root = element;
      open.push(element);
    },
    close: (to) => {
      const element = open.pop();
      if (element) element.to = to;
    },
    text: (words) => {
      const element = open.at(-1);
      if (element && keepsText.has(element.name)) element.text += words;
    },
  };
  readXmlStream(text, maxDepth, listener, onProgress);
  if (!root) throw new AppError('badDrawing', 'the file is empty');
  return root;
}

interface OpenElement extends XmlElement {
  readonly children: OpenElement[];
  text: string;
  to: number;
}

/**
 * A name without its namespace prefix.
 *
 * @example localName('svg:path') // 'path'
 */
export function localName(name: string): string {
  return name.slice(name.indexOf(':') + 1);
}
