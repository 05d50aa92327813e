import { AppError } from '#core/errors/appError.ts';
import { whyWeak } from '#core/people/secrets.ts';

let breached: Promise<ReadonlySet<string>> | undefined;

/** Passwords that turned up in breaches, the 49,000 commonest; read when somebody first chooses one. */
async function listBreached(): Promise<ReadonlySet<string>> {
  const { dictionary } = await import('@zxcvbn-ts/language-common');
  return new Set(dictionary['passwords-common']);
}

/**
 * Refuses a password that is easily guessed, or is among those that guessers try first (OWASP ASVS 5, 6.2.4).
 *
 * @param names words that a guesser knows, such as the person’s own
 * @throws AppError `badInput`, saying why
 */
export async function refuseWeak(password: string, names: readonly string[]): Promise<void> {
  const weak = whyWeak(password, names);
  if (weak) throw new AppError('badInput', weak);
  breached ??= listBreached();
  if ((await breached).has(password.normalize('NFKC').toLowerCase())) {
    throw new AppError(
      'badInput',
      'That password is on the lists that guessers try first. Take another one.',
    );
  }
}
