import type { Layer, LayerRole } from '#core/stack/layer.ts';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import type { NewMaterial } from '#store/repositories/book/materials.ts';

/** A stack from its rows, measured unless a row says otherwise. */
export const layers = (
  ...rows: readonly (readonly [LayerRole, number, isMeasured?: boolean])[]
): readonly Layer[] => rows.map(([role, caliperUm, isMeasured = true]) => ({ role, caliperUm, isMeasured }));

/** Sheets that came to the shelf later on. */
export const NEWER_SHEETS: readonly NewMaterial[] = [
  {
    name: 'Saltbox gloss paper',
    maker: 'Skerry Mills',
    family: 'stickerPaper',
    finish: 'gloss',
    colourName: 'white',
    colourHex: '#fbfbf7',
    darkness: 0,
    cautions: ['Gloss glares at the sensor: matt tape over the marks.'],
    details: {
      ...NO_DETAILS,
      product: 'SGP 90',
      printMethods: ['ink'],
      printSide: 'top',
      adhesive: 'permanent',
      stock: { unit: 'sheet', price: 0.26, currency: 'EUR', onHand: 180 },
    },
    conditions: [
      { kind: 'printed', stack: layers(['ink', 4], ['face', 92], ['adhesive', 18], ['liner', 70]) },
      { kind: 'sealed', stack: layers(['ink', 9], ['face', 92], ['adhesive', 18], ['liner', 70]) },
    ],
  },
  {
    name: 'Phosphor holographic film',
    maker: 'Tarn & Tide',
    family: 'printableVinyl',
    finish: 'holographic',
    colourName: 'silver',
    colourHex: '#c9d3dc',
    darkness: 0.1,
    cautions: [
      'Glares: a lamp beside the machine, marks under matt tape.',
      'Thick: wants a card-like setting.',
    ],
    details: {
      ...NO_DETAILS,
      product: 'PH-110',
      nicknames: ['mackerel skin'],
      printMethods: ['ink'],
      printSide: 'top',
      adhesive: 'permanent',
      stock: { unit: 'sheet', price: 1.85, currency: 'EUR', onHand: 34 },
    },
    conditions: [{ kind: 'bare', stack: layers(['face', 110], ['adhesive', 26], ['liner', 135]) }],
  },
  {
    name: 'Capstan vinyl',
    maker: 'Tarn & Tide',
    family: 'plainVinyl',
    finish: 'matt',
    colourName: 'buoy orange',
    colourHex: '#d9622b',
    darkness: 0.3,
    cautions: [],
    details: {
      ...NO_DETAILS,
      product: 'CV-75',
      adhesive: 'removable',
      colours: [{ name: 'pitch black', hex: '#16181b', darkness: 1, forcePercent: 8 }],
      stock: { unit: 'metre', price: 3.1, currency: 'EUR', onHand: 22 },
    },
    conditions: [{ kind: 'bare', stack: layers(['face', 75], ['adhesive', 20], ['liner', 125]) }],
  },
  {
    name: 'Rushlight transfer film, black',
    maker: 'Tarn & Tide',
    family: 'transferFilm',
    finish: 'smooth',
    colourName: 'black',
    colourHex: '#1b1c20',
    darkness: 1,
    cautions: ['Cut it mirrored.', 'Take the lowest force that weeds clean: more leaves fuzzy edges.'],
    details: {
      ...NO_DETAILS,
      product: 'RT 90',
      isMirrored: true,
      heat: { temperatureC: 160, seconds: 12, note: 'peel hot' },
      stock: { unit: 'metre', price: 7.9, currency: 'EUR', onHand: 6 },
    },
    conditions: [{ kind: 'bare', stack: layers(['face', 88], ['liner', 105]) }],
  },
  {
    name: 'Harbourmaster cover',
    maker: 'Oldstrand',
    family: 'cardstock',
    finish: 'smooth',
    colourName: 'bone',
    colourHex: '#ece2cf',
    darkness: 0.1,
    cautions: ['Card wears a blade faster than film.'],
    details: {
      ...NO_DETAILS,
      product: '80 lb cover',
      printMethods: ['ink', 'toner'],
      printSide: 'either',
      fibre: 'long',
      stock: { unit: 'sheet', price: 0.29, currency: 'EUR', onHand: 300 },
    },
    conditions: [{ kind: 'bare', stack: layers(['body', 285, false]) }],
  },
  {
    name: 'Cork-backed tag sheet',
    maker: 'Skerry Mills',
    family: 'other',
    finish: 'natural',
    colourName: 'cork',
    colourHex: '#b98a5a',
    darkness: 0.2,
    cautions: ['Crumbles at sharp corners: round them.'],
    details: {
      ...NO_DETAILS,
      product: 'CB tag',
      stock: { unit: 'sheet', price: 2.2, currency: 'EUR', onHand: 12 },
    },
    conditions: [
      { kind: 'bare', stack: layers(['face', 400, false], ['adhesive', 30, false], ['liner', 80, false]) },
    ],
  },
];
