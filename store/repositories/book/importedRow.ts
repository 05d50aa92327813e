import type { BookSetting } from '#core/book/bookSetting.ts';

/** A setting of the file with the line it stands on, or why its line could not be read. */
export type BookRow =
  | { readonly line: number; readonly setting: BookSetting }
  | { readonly line: number; readonly refused: string };

/** What became of one row. */
export interface ImportedRow {
  /** Line of the file, or place in its list. */
  readonly line: number;
  readonly kind: 'material' | 'machine' | 'setting';
  readonly what: string;
  readonly status: 'new' | 'changed' | 'same' | 'refused';
  /** What changed, or why it was refused. */
  readonly detail: string;
}

/** Who reads a file in, and when. */
export interface ImportedBy {
  readonly author: string;
  readonly now: Date;
}
