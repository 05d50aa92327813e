import { describe, expect, it } from 'vitest';
import { refuseWeak } from '#server/people/refuseWeak.ts';

describe('a password that somebody chooses', () => {
  it.each(['1qaz2wsx', 'jennifer', 'Superman', 'qwertyuiop', 'ｊｅｎｎｉｆｅｒ'])(
    '%s is refused: it was in breaches',
    async (password) => {
      await expect(refuseWeak(password, ['Ines'])).rejects.toMatchObject({ code: 'badInput' });
    },
  );

  it.each(['wet carton 7 gulls', 'Möwenkiel im Regen', 'correct horse battery staple'])(
    '%s is taken',
    async (password) => {
      await expect(refuseWeak(password, ['Ines'])).resolves.toBeUndefined();
    },
  );

  it('is told which of the two it is', async () => {
    await expect(refuseWeak('1qaz2wsx', [])).rejects.toThrow(/lists that guessers try/);
    await expect(refuseWeak('ines-ines', ['Ines'])).rejects.toThrow(/easily guessed/);
  });
});
