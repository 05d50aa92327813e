/**
 * Says a sentence in another way, but for the words that people typed themselves: those stay as they are.
 *
 * @param own names above all
 * @example besideOwnWords('Film 2 mm: 3 mm', ['Film 2 mm'], (text) => text.replace('mm', 'in')) // 'Film 2 mm: 3 in'
 */
export function besideOwnWords(text: string, own: readonly string[], say: (text: string) => string): string {
  const [word, ...others] = own.filter((one) => one !== '' && text.includes(one));
  if (word === undefined) return say(text);
  return text
    .split(word)
    .map((rest) => besideOwnWords(rest, others, say))
    .join(word);
}
