/** A die-cut drawing on card as somebody draws it, and which of its lines are folds. Only for tests. */
export interface DieCut {
  readonly name: string;
  readonly svg: string;
  /** Line ids that are folds; empty for a drawing without. */
  readonly folds: readonly number[];
}

const wrap = (inside: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="200mm" height="200mm" viewBox="0 0 200 200" fill="none" stroke="#000" stroke-width=".3">${inside}</svg>`;
const card = '<rect x="20" y="20" width="160" height="120"/>';
const carton = '<path d="M20 60H60V40H100V60H140V40H180V140H140V160H100V140H60V160H20Z"/>';
const fold = (x: number, from = 20, to = 140) => `<path d="M${x} ${from}V${to}"/>`;
const range = (from: number, count: number) => Array.from({ length: count }, (_, at) => from + at);

/** Twenty drawings by hands that never met: twelve with folds, eight without. Invented. */
export const DIE_CUTS: readonly DieCut[] = [
  { name: 'tent card, dashed', svg: `${card}<path stroke-dasharray="3 2" d="M20 80H180"/>`, folds: [1] },
  { name: 'tent card, in red', svg: `${card}<path stroke="#f00" d="M20 80H180"/>`, folds: [1] },
  { name: 'tent card, all alike', svg: `${card}<path d="M20 80H180"/>`, folds: [1] },
  {
    name: 'carton, folds in blue',
    svg: `${carton}<g stroke="#00f">${[60, 100, 140].map((x) => fold(x, 60, 140)).join('')}</g>`,
    folds: range(1, 3),
  },
  {
    name: 'carton, a layer of folds',
    svg: `<g id="Stanze">${carton}</g><g id="Rilllinien">${[60, 100, 140].map((x) => fold(x, 60, 140)).join('')}</g>`,
    folds: range(1, 3),
  },
  {
    name: 'carton, all alike',
    svg: `${carton}${[60, 100, 140].map((x) => fold(x, 60, 140)).join('')}`,
    folds: range(1, 3),
  },
  {
    name: 'leaflet, two ways of folding',
    svg: `${card}<path stroke-dasharray="4 2" d="M60 20V140M140 20V140"/><path stroke-dasharray="6 2 1 2" d="M100 20V140"/>`,
    folds: [1, 2, 3],
  },
  {
    name: 'pillow box, curved folds',
    svg: `<path d="M20 40H180V120H20Z"/><g stroke="#0a0"><path d="M20 40Q50 80 20 120"/><path d="M180 40Q150 80 180 120"/></g>`,
    folds: [1, 2],
  },
  {
    name: 'box with slots and folds',
    svg: `${card}<g stroke="#f00">${fold(60)}${fold(140)}</g><g stroke="#00f"><path d="M90 60H110"/><path d="M90 100H110"/></g>`,
    folds: [1, 2],
  },
  {
    name: 'folds that end a hair short',
    svg: `${card}<g stroke="#f0f">${fold(80, 20.4, 139.6)}${fold(120, 20.4, 139.6)}</g>`,
    folds: [1, 2],
  },
  {
    name: 'card with a window and a fold',
    svg: `${card}<circle cx="60" cy="80" r="15"/><path stroke-dasharray="2 2" d="M100 20V140"/>`,
    folds: [2],
  },
  {
    name: 'envelope, its folds a frame',
    svg: `<path d="M60 60L100 20L140 60H180V140H140L100 180L60 140H20V60Z"/><path stroke="#00f" d="M60 60H140V140H60Z"/>`,
    folds: [1],
  },
  {
    name: 'gift tag',
    svg: `<rect x="20" y="20" width="60" height="100" rx="6"/><circle cx="50" cy="32" r="3"/>`,
    folds: [],
  },
  { name: 'coaster', svg: '<circle cx="100" cy="100" r="45"/>', folds: [] },
  {
    name: 'stencil',
    svg: `${card}<circle cx="60" cy="80" r="20"/><path d="M110 50H160V110H110Z"/>`,
    folds: [],
  },
  { name: 'hanger with a slit', svg: `${card}<path stroke="#f00" d="M90 50H110"/>`, folds: [] },
  { name: 'badge with a slot', svg: `${card}<rect x="85" y="30" width="30" height="6" rx="3"/>`, folds: [] },
  { name: 'puzzle pieces', svg: '<path d="M20 20H80V80H20Z"/><path d="M100 20H160V80H100Z"/>', folds: [] },
  { name: 'ring', svg: '<path d="M20 20H120V120H20ZM40 40V100H100V40Z"/>', folds: [] },
  {
    name: 'ticket, torn off',
    svg: `${card}<g id="perforation"><path stroke-dasharray="2 1" d="M140 20V140"/></g>`,
    folds: [],
  },
].map(({ svg, ...one }) => ({ ...one, svg: wrap(svg) }));
