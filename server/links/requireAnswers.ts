import { AppError } from '#core/errors/appError.ts';
import { findLanguage } from '#core/protocol/findLanguage.ts';
import type { LanguageChoice } from '#core/station/machine.ts';
import type { Link } from '#server/links/link.ts';

/**
 * A language whose lines are answered needs a link over which something comes back.
 *
 * @throws AppError `deviceUnreachable`, with what to do
 */
export function requireAnswers({ isTwoWay, words }: Link, { id, options }: LanguageChoice): void {
  const { name, flow } = findLanguage({ id });
  if (isTwoWay || flow(options).kind === 'stream') return;
  throw new AppError(
    'deviceUnreachable',
    `A machine that speaks ${name} answers, and nothing comes back from ${words}: link it by a serial line or an address.`,
  );
}
