import { describe, expect, it } from 'vitest';
import { STAND_IN_MODELS } from '#core/station/machine.ts';
import { findVariant, fittedAsItCame, listVariants } from '#core/station/standInVariants.ts';
import { machine } from '#core/tests/exampleScope.ts';

describe.each(STAND_IN_MODELS)('the ways of the %s stand-in', (model) => {
  const ways = listVariants(model);

  it('are told apart, and each is found again on a machine that is fitted out so', () => {
    expect(new Set(ways.map(({ id }) => id)).size).toBe(ways.length);
    expect(new Set(ways.map(({ fitted }) => JSON.stringify(fitted))).size).toBe(ways.length);
    for (const { id, fitted } of ways) {
      // As a store gives it back: its keys in another order, nothing undefined.
      const kept: unknown = JSON.parse(JSON.stringify({ ...machine, ...fitted }));
      expect(findVariant(model, kept as typeof machine)?.id).toBe(id);
    }
  });

  it('name the same fields, so that switching back leaves nothing behind', () => {
    const fieldsOf = (fitted: object) => Object.keys(fitted).toSorted();
    for (const { fitted } of ways) expect(fieldsOf(fitted)).toEqual(fieldsOf(fittedAsItCame(model)));
  });
});

it('is none of them where somebody changed a seat', () => {
  const other = { ...machine, ...fittedAsItCame('roll'), toolSeats: [] };
  expect(findVariant('roll', other)).toBeNull();
});
