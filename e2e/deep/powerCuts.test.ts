import { tormentRuns } from '#e2e/support/torment.ts';

// The plug of the computer is pulled; the machine beside it goes on with what it has.
tormentRuns(50, true);
