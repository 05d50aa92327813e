import { findLanguage } from '#core/protocol/findLanguage.ts';
import type { LanguageChoice } from '#core/station/machine.ts';

/** A text or bytes as a file with its type and a name to save it under. */
export function replyWithFile(
  content: string | Uint8Array,
  type: string,
  name: string,
  disposition: 'inline' | 'attachment' = 'attachment',
): Response {
  return new Response(typeof content === 'string' ? content : new Uint8Array(content), {
    headers: { 'content-type': type, 'content-disposition': `${disposition}; filename="${name}"` },
  });
}

/** A PDF, to be shown in the browser and printed from there. */
export function replyWithPdf(pdf: Uint8Array, name: string): Response {
  return new Response(new Uint8Array(pdf), {
    headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="${name}"` },
  });
}

/** A machine file, named and typed after the language it is written in. */
export function replyWithMachineFile(
  text: string,
  language: LanguageChoice,
  name: string,
  disposition: 'inline' | 'attachment' = 'attachment',
): Response {
  const { type, ending } = findLanguage(language).file;
  return replyWithFile(text, type, `${name}.${ending}`, disposition);
}

export const SVG_TYPE = 'image/svg+xml';
