/**
 * Words as they are searched: small letters, no accents, split at anything that is neither letter nor figure.
 *
 * @example splitTerms('Herring-glass, matt') // ['herring', 'glass', 'matt']
 */
export function splitTerms(text: string): readonly string[] {
  return text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replaceAll('ø', 'o')
    .replaceAll('æ', 'ae')
    .replaceAll('ß', 'ss')
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .map((term) => term.slice(0, 40));
}

/**
 * The three-letter pieces of a term, with its beginning marked, each once: terms that share many are alike.
 *
 * @example termGrams('matt') // ['^ma', 'mat', 'att']
 */
export function termGrams(term: string): readonly string[] {
  const marked = `^${term}`;
  if (marked.length < 3) return [marked];
  const grams = Array.from({ length: marked.length - 2 }, (_, start) => marked.slice(start, start + 3));
  return [...new Set(grams)];
}

/**
 * Edits from one term to another: letters put in, left out, changed or swapped with the next (optimal string
 * alignment). Stops counting above `most`.
 *
 * @example countEdits('herringlass', 'herringglass', 2) // 1
 */
export function countEdits(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) > most) return most + 1;
  let before: number[] = [];
  let last = Array.from({ length: b.length + 1 }, (_, column) => column);
  for (let row = 1; row <= a.length; row++) {
    const here = [row];
    for (let column = 1; column <= b.length; column++) {
      const isSame = a[row - 1] === b[column - 1];
      let least = Math.min(
        (last[column] as number) + 1,
        (here[column - 1] as number) + 1,
        (last[column - 1] as number) + (isSame ? 0 : 1),
      );
      const isSwapped = row > 1 && column > 1 && a[row - 1] === b[column - 2] && a[row - 2] === b[column - 1];
      if (isSwapped) least = Math.min(least, (before[column - 2] as number) + 1);
      here.push(least);
    }
    if (Math.min(...here) > most) return most + 1;
    [before, last] = [last, here];
  }
  return last[b.length] as number;
}

/**
 * Slips of the finger that a word of this length is forgiven.
 *
 * @example forgivenEdits(4) // 1
 */
export function forgivenEdits(length: number): number {
  if (length <= 2) return 0;
  return length <= 5 ? 1 : 2;
}

/**
 * How well a typed word names a term, from 0 (not at all) to 1 (the same): whole words before beginnings, beginnings
 * before words with slips, which may be beginnings too.
 *
 * @example scoreTerm('matt', 'matt') // 1
 */
export function scoreTerm(typed: string, term: string): number {
  if (typed === term) return 1;
  // A measure is met whole or not at all.
  if (typed.startsWith('#') || term.startsWith('#')) return 0;
  if (term.startsWith(typed)) return 0.9 - 0.1 * (1 - typed.length / term.length);
  const forgiven = forgivenEdits(typed.length);
  if (forgiven === 0) return 0;
  const whole = countEdits(typed, term, forgiven);
  if (whole <= forgiven) return 0.75 - 0.12 * whole;
  const begun = countEdits(typed, term.slice(0, typed.length), forgiven);
  if (term.length > typed.length && begun <= forgiven) return 0.6 - 0.12 * begun;
  return 0;
}
