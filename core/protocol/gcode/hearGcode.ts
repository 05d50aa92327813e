import type { Answer } from '#core/protocol/machineLanguage.ts';

/**
 * What a line means that came back: `ok` takes a line as done, `error` refuses it, `alarm` means that the machine gave
 * up by itself, `<...>` is a sign of life. Greetings and echoes mean nothing.
 *
 * @example hearGcode('ok') // { kind: 'done' }
 */
export function hearGcode(line: string): Answer {
  const text = line.trim();
  if (/^ok\b/i.test(text)) return { kind: 'done' };
  if (/^error\b/i.test(text))
    return { kind: 'refused', reason: rest(text, 'error') || 'a line it cannot do' };
  if (/^alarm\b/i.test(text)) return { kind: 'halted', reason: rest(text, 'alarm') || 'an alarm of its own' };
  if (text.startsWith('<')) return { kind: 'alive', isIdle: /^<\s*idle\b/i.test(text) };
  return { kind: 'noise' };
}

function rest(text: string, word: string): string {
  return text
    .slice(word.length)
    .replace(/^[\s:]+/, '')
    .slice(0, 120);
}
