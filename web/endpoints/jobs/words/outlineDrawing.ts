import { hasText } from '#core/artwork/words/outlineText.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findFontFile, listFonts } from '#store/repositories/jobs/fonts.ts';
import { readShippedFont, SHIPPED_FONTS } from '#web/endpoints/jobs/words/shippedFonts.ts';
import { runTask } from '#web/workers/pool.ts';
import type { NamedFont } from '#web/workers/tasks/wordTasks.ts';

/**
 * An SVG with its words as outlines, where the app or the workshop has their font; others stay as they are.
 *
 * @throws AppError `badDrawing` for no XML
 */
export async function outlineDrawing(store: Store, source: string, signal: AbortSignal): Promise<string> {
  if (!hasText(source)) return source;
  const plain = source.toLowerCase();
  const isNamed = ({ family }: { readonly family: string }) => plain.includes(family.toLowerCase());
  const fonts: NamedFont[] = SHIPPED_FONTS.filter(isNamed).flatMap(({ id, family, isBold }) => {
    const data = readShippedFont(id);
    return data ? [{ family, isBold, data }] : [];
  });
  for (const { id, family, isBold } of (await listFonts(store)).filter(isNamed)) {
    fonts.push({ family, isBold, data: await findFontFile(store, id) });
  }
  return fonts.length === 0 ? source : runTask('outlineText', { source, fonts }, { signal });
}
