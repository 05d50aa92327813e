import { describe, expect, it } from 'vitest';
import { mayAs, ROLES } from '#core/people/roles.ts';
import { whyWeak, whyWeakPin } from '#core/people/secrets.ts';

describe('roles', () => {
  it('reach as far as their own and no further', () => {
    for (const [has, role] of ROLES.entries()) {
      expect(ROLES.filter((needed) => mayAs(role, needed))).toEqual(ROLES.slice(0, has + 1));
    }
  });
});

describe('a password', () => {
  it.each([
    ['short1!', /at least 8/],
    ['x'.repeat(129), /at most 128/],
    ['Password1', /easily guessed/],
    ['ines ines', /easily guessed/],
    ['12345678', /repeats or counts/],
    ['hgfedcba', /repeats or counts/],
    ['abababababab', /repeats or counts/],
  ])('%s will not do', (password, why) => {
    expect(whyWeak(password, ['Ines'])).toMatch(why);
  });

  it.each(['wet carton 7 gulls', 'correct horse battery', 'zäh wie Leder', 'tr0ub4dor&3'])(
    '%s will do',
    (password) => {
      expect(whyWeak(password, ['Ines'])).toBe(null);
    },
  );
});

describe('a PIN', () => {
  it.each(['123', '123456789', '1111', '2345', '9876', '12a4'])('%s will not do', (pin) => {
    expect(whyWeakPin(pin)).not.toBe(null);
  });
  it.each(['4711', '908172'])('%s will do', (pin) => expect(whyWeakPin(pin)).toBe(null));
});
