import { SaxesParser, type SaxesTagPlain } from 'saxes';
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
}

const CHUNK = 1 << 20;

/**
 * Reads XML into elements. Nothing outside the text is ever fetched; entities are refused.
 *
 * @param maxDepth deepest nesting of elements
 * @param keepsText names of elements whose text is wanted
 * @throws AppError `badDrawing` with the line: not well-formed, entities, nested too deep, empty
 */
export function readXmlTree(
  text: string,
  maxDepth: number,
  keepsText: ReadonlySet<string>,
  onProgress?: ReadProgress,
): XmlElement {
  const builder = new TreeBuilder(maxDepth, keepsText);
  const parser = new SaxesParser();
  parser.on('error', (error) => {
    throw new AppError('badDrawing', `this is not well-formed XML: ${error.message}`);
  });
  parser.on('doctype', (doctype) => {
    if (!/<!ENTITY/i.test(doctype)) return;
    throw new AppError('badDrawing', `line ${parser.line}: the file defines entities; they are not read`);
  });
  parser.on('opentag', (tag) => builder.open(tag, parser.line));
  parser.on('closetag', () => builder.close());
  const take = (words: string) => builder.take(words);
  parser.on('text', take);
  parser.on('cdata', take);
  for (let from = 0; from < text.length; from += CHUNK) {
    parser.write(text.slice(from, from + CHUNK));
    onProgress?.(Math.min(1, (from + CHUNK) / text.length));
  }
  parser.close();
  if (!builder.root) throw new AppError('badDrawing', 'the file is empty');
  return builder.root;
}

interface OpenElement extends XmlElement {
  readonly children: OpenElement[];
  text: string;
}

class TreeBuilder {
  root: XmlElement | null = null;
  private readonly open_: OpenElement[] = [];

  constructor(
    private readonly maxDepth: number,
    private readonly keepsText: ReadonlySet<string>,
  ) {}

  open(tag: SaxesTagPlain, line: number): void {
    if (this.open_.length > this.maxDepth) {
      throw new AppError('badDrawing', `line ${line}: groups are nested deeper than ${this.maxDepth}`);
    }
    const element = { name: localName(tag.name), attributes: tag.attributes, children: [], line, text: '' };
    const parent = this.open_.at(-1);
    if (parent) parent.children.push(element);
    else this.root = element;
    this.open_.push(element);
  }

  close(): void {
    this.open_.pop();
  }

  take(words: string): void {
    const element = this.open_.at(-1);
    if (element && this.keepsText.has(element.name)) element.text += words;
  }
}

/** A name without its namespace prefix. */
export function localName(name: string): string {
  return name.slice(name.indexOf(':') + 1);
}
