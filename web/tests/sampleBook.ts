import { composeAnswer } from '#core/answer/composeAnswer.ts';
import type { SettingRevision } from '#core/setting/setting.ts';
import type { Layer } from '#core/stack/layer.ts';
import type { Material } from '#core/stack/material.ts';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import { PLAIN_EQUIPMENT, type Machine } from '#core/station/machine.ts';
import type { Blade, Station } from '#core/station/station.ts';
import type { BenchAnswer, SettingSummary } from '#web/schemas/setting.ts';

/** Only for tests: one material, machine, blade and setting that views are drawn from. */
const layer = (role: Layer['role'], caliperUm: number): Layer => ({ role, caliperUm, isMeasured: true });

export const sampleMaterial: Material = {
  id: 1,
  name: 'Herringglass matt',
  maker: 'Oldstrand',
  family: 'printableVinyl',
  finish: 'matt',
  colourName: 'white',
  colourHex: '#f3c9b4',
  darkness: 0,
  cautions: ['Matt film: the marks read without tape.'],
  details: {
    ...NO_DETAILS,
    colours: [{ name: 'navy', hex: '#2c4a7c', darkness: 0.8, forcePercent: 6 }],
    stock: { ...NO_DETAILS.stock, price: 0.92 },
  },
  conditions: [
    { id: 10, kind: 'bare', stack: [layer('face', 80), layer('adhesive', 25), layer('liner', 140)] },
    {
      id: 11,
      kind: 'printed',
      stack: [layer('ink', 6), layer('face', 80), layer('adhesive', 25), layer('liner', 140)],
    },
  ],
  version: 3,
  isArchived: false,
};

export const sampleMachine: Machine = {
  id: 2,
  name: 'Gannet 600',
  kind: 'rollFed',
  bedWidthMm: 610,
  bedLengthMm: 2000,
  marginMm: 10,
  forceScale: { kind: 'gramForce', min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 },
  speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
  depthScale: { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1.5 },
  accelerationMmPerS2: 3000,
  travelSpeedMmPerS: 500,
  numbersOwner: 'file',
  language: { id: 'hpgl', options: { unitsPerMm: 40 } },
  link: { kind: 'none' },
  ...PLAIN_EQUIPMENT,
  version: 1,
  isArchived: false,
};

export const sampleBlade: Blade = {
  id: 3,
  number: 7,
  kind: '45° fine',
  angleDeg: 45,
  offsetMm: 0.25,
  travelMetres: 205,
  lifeMetres: 360,
  fittedTo: 2,
  reachMm: 0.9,
  holder: 'roll',
  isHardMetal: false,
  cleanedAt: null,
  retiredAt: null,
};

export const sampleRevision: SettingRevision = {
  revision: 2,
  values: { force: 106, exposureMm: 0.375, speed: 200, passes: 1, offsetMm: 0.25, overcutMm: 0.4 },
  sources: { force: 'testCuts', exposureMm: 'stack' },
  author: 'Ines',
  reason: 'gulls lift clean',
  lot: '26-B',
  at: '2026-10-22T11:53:00.000Z',
};

export function sampleStation(change: Partial<NonNullable<Station['loaded']>> = {}): Station {
  const [condition] = sampleMaterial.conditions;
  if (!condition) throw new Error('the sample has no state');
  const loaded = { material: sampleMaterial, condition, lot: '', colour: '', ...change };
  return { machine: sampleMachine, blade: sampleBlade, mat: null, loaded };
}

export function sampleSetting(change: Partial<SettingSummary> = {}): SettingSummary {
  return {
    id: 7,
    conditionId: 10,
    materialId: 1,
    machineId: 2,
    material: 'Herringglass matt',
    maker: 'Oldstrand',
    machine: 'Gannet 600',
    bladeKind: '45° fine',
    operation: 'kiss',
    state: 'proven',
    stateReason: '3 clean runs',
    lockedBy: '',
    isArchived: false,
    revision: sampleRevision,
    forceUnit: 'gf',
    speedUnit: 'mm/s',
    exposureWords: '¾ turn from flush',
    cleanRuns: 3,
    runs: 4,
    ...change,
  };
}

export function sampleAnswer(station = sampleStation(), change: Partial<BenchAnswer> = {}): BenchAnswer {
  const known = { revision: sampleRevision, state: 'proven', stateReason: '3 clean runs' } as const;
  return {
    settingId: 7,
    lockedBy: '',
    relatives: [],
    answer: composeAnswer(station, 'kiss', known, []),
    revision: sampleRevision,
    verdicts: ['clean', 'clean', 'someSpoiled', 'clean'],
    lastNote: 'corner hung on one gull',
    cuts: [],
    belief: null,
    runs: [],
    lesson: '',
    harmCuts: 3.5,
    ...change,
  };
}
