/** What people see. */
export const SYMPTOMS = [
  'cornersHang',
  'notThrough',
  'linerCut',
  'fuzzy',
  'jagged',
  'bunches',
  'fellOut',
  'wontPop',
  'sheetMoved',
  'whiteEdge',
  'marksNotRead',
  'oneColour',
  'linerTears',
] as const;
export type Symptom = (typeof SYMPTOMS)[number];

export const SYMPTOM_WORDS: Readonly<Record<Symptom, string>> = {
  cornersHang: 'corners hang, the rest lifts',
  notThrough: 'not through anywhere',
  linerCut: 'the liner is cut too',
  fuzzy: 'fuzzy edge',
  jagged: 'jagged ends, ragged corners',
  bunches: 'the sheet bunches or tears',
  fellOut: 'a piece came out early',
  wontPop: 'pieces will not pop out',
  sheetMoved: 'the sheet moved',
  whiteEdge: 'white edge on one side',
  marksNotRead: 'the marks are not read',
  oneColour: 'only one colour fails',
  linerTears: 'the liner tears, the sheet curls',
};
