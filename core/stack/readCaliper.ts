import { readPaperWeight } from '#core/units/basisWeight.ts';
import { inchToMm, milToUm } from '#core/units/length.ts';

/** A caliper as it was said, in µm, with the words for what was understood. */
export interface SaidCaliper {
  readonly caliperUm: number;
  /** False when it was worked out from a weight and a density instead of measured. */
  readonly isMeasured: boolean;
  readonly words: string;
}

const UM_PER_UNIT: Readonly<Record<string, number>> = {
  µm: 1,
  μm: 1,
  um: 1,
  micron: 1,
  microns: 1,
  my: 1,
  mm: 1000,
  mil: milToUm(1),
  mils: milToUm(1),
  thou: milToUm(1),
  pt: milToUm(1),
  in: inchToMm(1) * 1000,
  '"': inchToMm(1) * 1000,
};

/**
 * Reads a thickness as people say it: a figure with a unit, or a paper weight turned into a thickness by its density.
 *
 * @param bareUnit the unit of a figure that names none
 * @param densityKgPerM3 density for weights; g/m² over g/cm³ is µm
 * @returns `null` when the text names neither
 * @example readCaliper('3.2 mil', 'µm', 800) // { caliperUm: 81.28, isMeasured: true, words: '81 µm' }
 * @example readCaliper('80 lb cover', 'µm', 760)?.caliperUm // 284.6
 */
export function readCaliper(
  text: string,
  bareUnit: 'µm' | 'mil',
  densityKgPerM3: number,
): SaidCaliper | null {
  const said = text.trim().toLowerCase().replace(',', '.');
  const plain = /^(\d+(?:\.\d+)?|\.\d+)\s*([a-zµμ"]*)$/.exec(said);
  const perUnit = UM_PER_UNIT[plain?.[2] || bareUnit];
  if (plain && perUnit) {
    const caliperUm = round(Number(plain[1]) * perUnit);
    return { caliperUm, isMeasured: true, words: `${caliperUm.toFixed(0)} µm` };
  }
  const weight = readPaperWeight(said);
  if (!weight || !(densityKgPerM3 > 0)) return null;
  const caliperUm = round((weight.gsm * 1000) / densityKgPerM3);
  return {
    caliperUm,
    isMeasured: false,
    words: `${weight.words}: about ${caliperUm.toFixed(0)} µm at ${densityKgPerM3} kg/m³`,
  };
}

function round(um: number): number {
  return Number(um.toFixed(2));
}
