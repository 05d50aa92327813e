export type CutterName = 'desk' | 'roll' | 'flat';

/** One of the stand-in cutters: what its panel shows and what it truly does. */
export interface CutterModel {
  /** How many tools the carriage holds, and which seat holds the blunt one that presses folds. */
  readonly seats: number;
  readonly creaseSeat: number | null;
  readonly name: CutterName;
  /** The language it reads. */
  readonly language: 'hpgl' | 'gcode';
  readonly minForce: number;
  readonly maxForce: number;
  /** True grams of a value on its scale: never quite what the scale says. */
  readonly trueGf: (force: number) => number;
  readonly mmPerSPerSpeed: number;
}

export const CUTTER_MODELS: Readonly<Record<CutterName, CutterModel>> = {
  desk: {
    name: 'desk',
    language: 'hpgl',
    minForce: 1,
    maxForce: 33,
    trueGf: (force) => 6 + 11.3 * force ** 1.03,
    mmPerSPerSpeed: 10,
    seats: 2,
    creaseSeat: 2,
  },
  roll: {
    name: 'roll',
    language: 'hpgl',
    minForce: 10,
    maxForce: 500,
    trueGf: (force) => 1.06 * force,
    mmPerSPerSpeed: 1,
    seats: 2,
    creaseSeat: null,
  },
  flat: {
    name: 'flat',
    language: 'gcode',
    minForce: 20,
    maxForce: 800,
    trueGf: (force) => 4 + 0.94 * force,
    mmPerSPerSpeed: 1,
    seats: 1,
    creaseSeat: null,
  },
};
