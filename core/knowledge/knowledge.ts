/**
 * What the whole book has taught about the effects that sheets share: plain data, kept by version so that an answer
 * can be explained later. Arrays are in the order of `names`.
 */
export interface Knowledge {
  /** The model that fitted it. */
  readonly model: string;
  readonly names: readonly string[];
  readonly mean: readonly number[];
  /** Information (inverse covariance), row-major, side = names; every material's own effects are eliminated. */
  readonly information: readonly number[];
  /** Own effects of each material by its id: where the next fit starts. */
  readonly own: Readonly<Record<string, Readonly<Record<string, number>>>>;
  readonly trialCount: number;
  readonly sheetCount: number;
  readonly iterations: number;
  readonly logPosterior: number;
}

export const KNOWLEDGE_MODEL = 'hierarchical 1';
