/** OWASP ASVS 5, 6.2.1 and 6.2.9: at least 8 characters, and at least 64 are taken. */
export const PASSWORD_LENGTH = { least: 8, most: 128 } as const;
export const PIN = /^\d{4,8}$/;

/** Words that guessers begin with. */
const USUAL = [
  'password',
  'passwort',
  'qwert',
  'letmein',
  'welcome',
  'sunshine',
  'iloveyou',
  'abc123',
  'admin',
];
const LOWEST_VARIETY = 5;

/**
 * Why a password will not do; `null` where it will. Nothing is asked of its kinds of characters (ASVS 5, 6.2.5).
 *
 * @param names words that a guesser knows: the name of the person, of the workshop, of the application
 * @example whyWeak('feather', ['Ines']) // 'A password has at least 8 characters.'
 */
export function whyWeak(password: string, names: readonly string[]): string | null {
  const length = [...password].length;
  if (length < PASSWORD_LENGTH.least) return `A password has at least ${PASSWORD_LENGTH.least} characters.`;
  if (length > PASSWORD_LENGTH.most) return `A password has at most ${PASSWORD_LENGTH.most} characters.`;
  const plain = password.toLowerCase();
  const known = [...USUAL, 'feather', ...names.map((name) => name.toLowerCase())].filter(
    (word) => word.length > 2,
  );
  const rest = known.reduce((left, word) => left.replaceAll(word, ''), plain);
  if ([...rest].length < PASSWORD_LENGTH.least - 2)
    return 'That is easily guessed: take other words than names.';
  if (new Set(plain).size < LOWEST_VARIETY || isRun(plain))
    return 'That is easily guessed: it only repeats or counts.';
  return null;
}

/** Whether characters count on by one all the way, as in 12345678 or hgfedcba. */
function isRun(text: string): boolean {
  const codes = [...text].map((character) => character.codePointAt(0) ?? 0);
  const steps = new Set(codes.slice(1).map((code, at) => code - (codes[at] ?? 0)));
  return steps.size === 1;
}

/**
 * Why a PIN will not do; `null` where it will.
 *
 * @example whyWeakPin('4711') // null
 */
export function whyWeakPin(pin: string): string | null {
  if (!PIN.test(pin)) return 'A PIN has 4 to 8 digits.';
  return new Set(pin).size < 2 || isRun(pin) ? 'That is easily guessed: it only repeats or counts.' : null;
}
