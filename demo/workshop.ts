import type { Layer, LayerRole } from '#core/stack/layer.ts';
import type { NewMaterial } from '#store/repositories/materials.ts';
import type { NewMachine } from '#store/repositories/machines.ts';
import type { NewBlade, NewMat } from '#store/repositories/tools.ts';

/** The invented workshop: two people in a harbour town, two machines, what lies on their shelf. */
export const PEOPLE = ['Ines', 'Tove'] as const;

export const ROLL_CUTTER: NewMachine = {
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
  hpglUnitsPerMm: 40,
  link: { kind: 'standIn', model: 'roll' },
};

export const DESK_CUTTER: NewMachine = {
  name: 'Dunlin desk',
  kind: 'matFed',
  bedWidthMm: 305,
  bedLengthMm: 610,
  marginMm: 6,
  forceScale: { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 4, gfPerUnit: 12 },
  speedScale: { unit: 'cm/s', min: 1, max: 40, step: 1, mmPerSPerUnit: 10 },
  depthScale: { kind: 'dial', mmPerStep: 0.1, maxMm: 1 },
  accelerationMmPerS2: 1200,
  travelSpeedMmPerS: 250,
  numbersOwner: 'file',
  hpglUnitsPerMm: 40,
  link: { kind: 'standIn', model: 'desk' },
};

export const BLADES: readonly NewBlade[] = [
  { number: 7, kind: '45° fine', angleDeg: 45, offsetMm: 0.25, travelMetres: 205, lifeMetres: 360 },
  { number: 5, kind: '45° fine', angleDeg: 45, offsetMm: 0.25, travelMetres: 348, lifeMetres: 360 },
  { number: 8, kind: '60° deep', angleDeg: 60, offsetMm: 0.5, travelMetres: 62, lifeMetres: 250 },
  { number: 9, kind: '45° fine', angleDeg: 45, offsetMm: 0.25, travelMetres: 0, lifeMetres: 360 },
];

export const MATS: readonly NewMat[] = [
  { number: 3, tack: 'standard', uses: 31, widthMm: 305, heightMm: 305 },
  { number: 4, tack: 'light', uses: 8, widthMm: 305, heightMm: 610 },
  { number: 6, tack: 'strong', uses: 12, widthMm: 305, heightMm: 305 },
];

const layers = (...rows: readonly (readonly [LayerRole, number, isMeasured?: boolean])[]): readonly Layer[] =>
  rows.map(([role, caliperUm, isMeasured = true]) => ({ role, caliperUm, isMeasured }));

const HERRINGGLASS = [
  ['face', 80],
  ['adhesive', 25],
  ['liner', 140],
] as const;

/** The shelf, one material of every family and a few more. */
export const MATERIALS: readonly NewMaterial[] = [
  {
    name: 'Herringglass matt white',
    maker: 'Oldstrand',
    family: 'printableVinyl',
    finish: 'matt',
    colourName: 'white',
    colourHex: '#f3c9b4',
    darkness: 0,
    cautions: [
      'Matt film: the marks read without tape.',
      'Laminate settles for half an hour before it is cut.',
    ],
    conditions: [
      { kind: 'bare', stack: layers(...HERRINGGLASS) },
      { kind: 'printed', stack: layers(['ink', 6], ...HERRINGGLASS) },
      { kind: 'laminated', stack: layers(['laminate', 40], ['ink', 6], ...HERRINGGLASS) },
    ],
  },
  {
    name: 'Spindrift clear film',
    maker: 'Oldstrand',
    family: 'printableVinyl',
    finish: 'clear gloss',
    colourName: 'clear',
    colourHex: '#cfe3e6',
    darkness: 0,
    cautions: [
      'Clear film: ink dries slowly, test with a fingertip at the edge.',
      'Glare at the sensor: put matt tape over the marks.',
    ],
    conditions: [{ kind: 'bare', stack: layers(['face', 60], ['adhesive', 20], ['liner', 90]) }],
  },
  {
    name: 'Mooring vinyl, navy',
    maker: 'Oldstrand',
    family: 'plainVinyl',
    finish: 'satin',
    colourName: 'navy',
    colourHex: '#2c4a7c',
    darkness: 0.8,
    cautions: ['Strong pigment: wants more force than the pale colours of the same make.'],
    conditions: [{ kind: 'bare', stack: layers(['face', 70], ['adhesive', 22], ['liner', 130]) }],
  },
  {
    name: 'Drift label paper',
    maker: 'Skerry Mills',
    family: 'stickerPaper',
    finish: 'uncoated',
    colourName: 'natural',
    colourHex: '#efe3c4',
    darkness: 0,
    cautions: ['A strong mat tears this paper liner: use a light one.'],
    conditions: [
      { kind: 'bare', stack: layers(['face', 85], ['adhesive', 20], ['liner', 62]) },
      { kind: 'printed', stack: layers(['ink', 4, false], ['face', 85], ['adhesive', 20], ['liner', 62]) },
    ],
  },
  {
    name: 'Quilt transfer film, cream',
    maker: 'Tarn & Tide',
    family: 'transferFilm',
    finish: 'flock',
    colourName: 'cream',
    colourHex: '#f0dfb8',
    darkness: 0.1,
    cautions: ['Slick carrier: slips on a weak mat.', 'Cut it mirrored.'],
    conditions: [{ kind: 'bare', stack: layers(['face', 85, false], ['liner', 100, false]) }],
  },
  {
    name: 'Sailcloth card, chalk',
    maker: 'Skerry Mills',
    family: 'cardstock',
    finish: 'laid',
    colourName: 'chalk',
    colourHex: '#e9e4d6',
    darkness: 0,
    cautions: ['Card wears a blade faster than film.'],
    conditions: [{ kind: 'bare', stack: layers(['body', 285]) }],
  },
  {
    name: 'Sailcloth card, slate',
    maker: 'Skerry Mills',
    family: 'cardstock',
    finish: 'laid',
    colourName: 'slate',
    colourHex: '#5a6168',
    darkness: 0.9,
    cautions: ['Dark pigment: wants far more force than chalk.', 'Card wears a blade faster than film.'],
    conditions: [{ kind: 'bare', stack: layers(['body', 290]) }],
  },
  {
    name: 'Lantern stencil sheet',
    maker: 'Tarn & Tide',
    family: 'stencilSheet',
    finish: 'frosted',
    colourName: 'frost',
    colourHex: '#d5e0e4',
    darkness: 0,
    cautions: ['Catches the blade: keep the speed low.', 'Round the outer corners; they are sharp.'],
    conditions: [{ kind: 'bare', stack: layers(['body', 190]) }],
  },
  {
    name: 'Seedbox carton',
    maker: 'Skerry Mills',
    family: 'foldingCarton',
    finish: 'kraft',
    colourName: 'kraft',
    colourHex: '#c9a67a',
    darkness: 0.1,
    cautions: ['Crease before cutting; the outline comes last.'],
    conditions: [{ kind: 'bare', stack: layers(['body', 420]) }],
  },
];
