import { composeWords, type WordsDrawing } from '#core/artwork/words/composeWords.ts';
import { outlineText } from '#core/artwork/words/outlineText.ts';
import type { Contour } from '#core/geometry/contour.ts';
import { capitalsOf, readFont, setText } from '#web/endpoints/jobs/words/readFont.ts';

/** Words to be set. */
export interface WordsOrder {
  readonly text: string;
  readonly font: Uint8Array;
  /** Of a capital, mm. */
  readonly heightMm: number;
  readonly borderMm: number;
}

/** Sets words in a font, as a drawing. @throws AppError `badDrawing` for what is no font, or words that draw nothing */
export function wordsTask({ text, font: data, heightMm, borderMm }: WordsOrder): WordsDrawing & {
  readonly missing: readonly string[];
} {
  const font = readFont(Buffer.from(data));
  const em = heightMm / capitalsOf(font);
  const step = ((font.ascent - font.descent + font.lineGap) / font.unitsPerEm) * em;
  const contours: Contour[] = [];
  const missing = new Set<string>();
  text.split('\n').forEach((line, index) => {
    const set = setText(font, line, [em, 0, 0, -em, 0, index * step]);
    contours.push(...set.contours);
    for (const character of set.missing) missing.add(character);
  });
  return { ...composeWords(contours, borderMm), missing: [...missing] };
}

/** What a font is called. @throws AppError `badDrawing` for what is no font */
export function fontFactsTask({ font: data }: { readonly font: Uint8Array }): {
  readonly name: string;
  readonly family: string;
  readonly isBold: boolean;
} {
  const { fullName, familyName, subfamilyName } = readFont(Buffer.from(data));
  return {
    name: (fullName || familyName || 'font').slice(0, 120),
    family: (familyName || fullName || 'font').slice(0, 120),
    isBold: /bold|black|heavy/i.test(subfamilyName),
  };
}

/** A font by the names that drawings call it. */
export interface NamedFont {
  readonly family: string;
  readonly isBold: boolean;
  readonly data: Uint8Array;
}

/** A drawing whose words are outlines, where their font is among these. @throws AppError `badDrawing` for no XML */
export function outlineTextTask({
  source,
  fonts,
}: {
  readonly source: string;
  readonly fonts: readonly NamedFont[];
}): string {
  const opened = new Map<NamedFont, ReturnType<typeof readFont>>();
  return outlineText(source, ({ families, isBold }, text, toPlace) => {
    const own = families
      .map((name) => fonts.filter(({ family }) => family.toLowerCase() === name.toLowerCase()))
      .find(({ length }) => length > 0);
    const named = own?.find((one) => one.isBold === isBold) ?? own?.[0];
    if (!named) return null;
    const font = opened.get(named) ?? readFont(Buffer.from(named.data));
    opened.set(named, font);
    return setText(font, text, toPlace);
  });
}
