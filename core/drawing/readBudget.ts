import { AppError } from '#core/errors/appError.ts';

/**
 * What reading one drawing may cost, in steps: about what a straight segment costs. A file of 100,000 lines of forty
 * segments each is within it.
 */
export const MAX_READ_STEPS = 4_000_000;

/** Steps of what costs more than a segment. */
export const STEPS = { cubic: 2, arc: 12, element: 4, reuse: 24, entity: 8 } as const;

/**
 * Counts down what a reader does, so that a small file that means much work (symbols in symbols, rules for every
 * element, turns without end) is refused as a large one is.
 */
export class ReadBudget {
  constructor(private left = MAX_READ_STEPS) {}

  /** @throws AppError `tooLarge` when all is spent */
  spend(steps: number): void {
    this.left -= steps;
    if (this.left < 0) {
      throw new AppError(
        'tooLarge',
        'the drawing takes too much work to read: it holds too many segments, or symbols and rules that multiply',
      );
    }
  }
}
