import { normalCdf, normalPdf } from '#core/threshold/numerics/normal.ts';

/** A symmetric link of the ordinal model: distribution function and density of the latent noise. */
export interface Link {
  readonly name: 'probit' | 'logit';
  readonly cdf: (x: number) => number;
  readonly pdf: (x: number) => number;
}

export const PROBIT: Link = { name: 'probit', cdf: normalCdf, pdf: normalPdf };

export const LOGIT: Link = {
  name: 'logit',
  cdf: (x) => (x >= 0 ? 1 / (1 + Math.exp(-x)) : Math.exp(x) / (1 + Math.exp(x))),
  pdf: (x) => {
    const tail = Math.exp(-Math.abs(x));
    return tail / (1 + tail) ** 2;
  },
};
