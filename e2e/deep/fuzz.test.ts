import { expect, it } from 'vitest';
import { fuzzImporter, IMPORTERS } from '#e2e/support/fuzzImporters.ts';

it.each(IMPORTERS)('10,000 mutated files are read or refused, none breaks the reader of %s', (importer) => {
  const { broken, ...tally } = fuzzImporter(importer, 10_000, 2026);
  process.stdout.write(`${importer}: ${JSON.stringify(tally)}\n`);
  expect(broken).toEqual([]);
});
