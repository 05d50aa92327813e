import type { ProgramFacts } from '#core/program/runProgram.ts';
import { glareOf } from '#core/stack/glare.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';
import { wearOfMat } from '#core/station/wearOfMat.ts';
import { tackIndex } from '#core/wear/tackIndex.ts';

/** What the hands at a machine know of a sheet and how it is held, for the program of a run. */
export function factsOfSheet(
  station: Omit<Station, 'loaded'>,
  sheet: LoadedSheet,
  now: Date,
): Pick<ProgramFacts, 'bladeMetres' | 'gloss' | 'grounds' | 'hold' | 'sheet'> {
  const { material, condition, lot } = sheet;
  return {
    bladeMetres: station.blade?.travelMetres ?? 0,
    grounds: station.machine.toolSeats.map(({ over }) => over ?? null),
    gloss: glareOf(material, condition),
    hold: { tack: tackOf(station, now), adhesiveUm: adhesiveOf(sheet) },
    sheet: {
      key: `${material.maker}/${material.name}/${condition.kind}/${lot}`,
      family: material.family,
      darkness: material.darkness,
      layers: condition.stack.map(({ role, caliperUm }) => ({ role, caliperUm })),
    },
  };
}

/** The blade and the mat that a run wears. */
export function toolsOf({ machine, blade, mat }: Omit<Station, 'loaded'>) {
  const used = machine.kind === 'matFed' ? mat : null;
  return {
    bladeId: blade?.id ?? null,
    bladeMetres: blade?.travelMetres ?? null,
    matId: used?.id ?? null,
    matUses: used?.uses ?? null,
  };
}

/** What has no adhesive has no face that could let go of it. */
const NO_ADHESIVE_UM = 1000;

/** The adhesive of a stack, µm. */
function adhesiveOf({ condition: { stack } }: LoadedSheet): number {
  const layers = stack.filter(({ role }) => role === 'adhesive');
  return layers.length === 0 ? NO_ADHESIVE_UM : layers.reduce((sum, { caliperUm }) => sum + caliperUm, 0);
}

/** How well the sheet is held: by the mat as it is today, or as a roll. */
function tackOf({ machine, mat }: Omit<Station, 'loaded'>, now: Date): number | null {
  if (machine.kind !== 'matFed') return null;
  return mat ? tackIndex(wearOfMat(mat, now)) : FAIR_TACK;
}

/** A mat that nobody chose is taken for a fair one. */
const FAIR_TACK = 50;
