import { expect, it } from 'vitest';
import { fuzzImporter, IMPORTERS } from '#e2e/support/fuzzImporters.ts';

/** A seeded small part of the fuzz set; all of it is in `./feather test deep`. */
it.each(IMPORTERS)('400 mutated files are read or refused, none breaks the reader of %s', (importer) => {
  const tally = fuzzImporter(importer, 400, 7);
  expect(tally.broken).toEqual([]);
  expect(tally.read).toBeGreaterThan(0);
  expect(tally.refused).toBeGreaterThan(5);
});
