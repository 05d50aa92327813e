import { stopAtAnyMoment } from '#e2e/support/stopAtAnyMoment.ts';

stopAtAnyMoment(23);
