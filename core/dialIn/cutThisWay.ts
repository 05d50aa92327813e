/** Passes of a line, and speed in mm/s. */
interface CutWay {
  readonly passes: number;
  readonly speedMmPerS: number;
}

/** Speeds that differ by less than this factor cut alike. Common practice, no source. */
const ALIKE_SPEED = 1.25;

/**
 * Whether a cut was made the way that is asked about: as many passes, about as fast. A cut of another way says
 * something through the model, but confirms nothing here.
 *
 * @example isCutThisWay({ passes: 1, speedMmPerS: 100 }, { passes: 1, speedMmPerS: 50 }) // false
 */
export function isCutThisWay(cut: CutWay, asked: CutWay): boolean {
  const ratio = cut.speedMmPerS / asked.speedMmPerS;
  return cut.passes === asked.passes && ratio <= ALIKE_SPEED && ratio >= 1 / ALIKE_SPEED;
}
