import { tormentRuns } from '#e2e/support/torment.ts';

tormentRuns(100);
