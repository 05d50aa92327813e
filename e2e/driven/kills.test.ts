import { tormentRuns } from '#e2e/support/torment.ts';

// A few; a hundred under `./feather test deep`.
tormentRuns(3);
