import { stopAtAnyMoment } from '#e2e/support/stopAtAnyMoment.ts';

// Some; each moment 23 times under `./feather test deep`.
stopAtAnyMoment(7);
