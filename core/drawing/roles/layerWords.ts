import type { Role } from '#core/drawing/roles/lineRoles.ts';

/**
 * Words that layers are named with, in the languages of the trade, without accents: English, German, French, Spanish,
 * Italian, Dutch, Portuguese. A word that is used for kissing and for cutting through alike, as "cut" is, is not here:
 * it says too little. Common practice, no source.
 */
const WORDS: readonly (readonly [Role, string])[] = [
  [
    'ignore',
    'ignore guide guides guideline guidelines note notes dimension dimensions hidden construction ' +
      'hilfslinie hilfslinien bemassung repere reperes cote cotes guia guias cota cotas quote hulplijn hulplijnen',
  ],
  [
    'crease',
    'crease creases creasing fold folds folding foldline foldlines bend bends falz falze falzen falzlinie ' +
      'rill rille rillen rillung rilllinie pli plis rainage rainure pliegue pliegues plegado hendido doblez ' +
      'piega pieghe cordonatura vouw vouwen vouwlijn ril rillijn dobra dobras vinco vincos',
  ],
  ['kiss', 'kiss kisscut michair semicorte mezzotaglio anstanzen anstanzung'],
  [
    'perforated',
    'perf perfs perforate perforated perforation perforations tearoff perforiert abriss perfore perforee ' +
      'perforado perforada perforacion perforato perforazione perforatie perfuracao picote',
  ],
  [
    'slit',
    'slit slits slot slots incision incisions schlitz schlitze fente fentes ranura ranuras fessura fessure ' +
      'sleuf sleuven ranhura ranhuras',
  ],
  ['score', 'score scored scoring engrave engraving ritzen ritzung ritzlinie gravur gravure graveren'],
  [
    'through',
    'through outline outlines free die dieline diecut stanze stanzen stanzung stanzkontur stanzlinie umriss ' +
      'durchschnitt contour contours troquel troquelado contorno fustella stans stanslijn omtrek faca',
  ],
  [
    'art',
    'art artwork print prints printed printing ink inks colour colours color colors image images picture ' +
      'pictures druck farbe farben bild bilder impression encre couleur couleurs impresion tinta imagen ' +
      'stampa immagine immagini kleur kleuren impressao imagem',
  ],
];

const ROLE_OF = new Map(
  WORDS.flatMap(([role, words]) => words.split(' ').map((word) => [word, role] as const)),
);
/** Two words that are one: "mi chair", "mezzo taglio". */
const PAIRS: readonly (readonly [string, Role])[] = [
  ['kiss cut', 'kiss'],
  ['mi chair', 'kiss'],
  ['medio corte', 'kiss'],
  ['meio corte', 'kiss'],
  ['mezzo taglio', 'kiss'],
  ['through cut', 'through'],
  ['die line', 'through'],
  ['die cut', 'through'],
];

/**
 * The role that a layer's name says, or `null`. Only whole words count: "folder" is no fold and "red-heart" no art.
 *
 * @example roleOfLayer('Fold-Lines 2') // 'crease'
 */
export function roleOfLayer(name: string): Role | null {
  const words = wordsOf(name);
  const text = ` ${words.join(' ')} `;
  const pair = PAIRS.find(([two]) => text.includes(` ${two} `));
  if (pair) return pair[1];
  const found = new Set(words.flatMap((word) => ROLE_OF.get(word) ?? []));
  // The first in the order of the list: a name that says "no print guide" is a guide first.
  return WORDS.find(([role]) => found.has(role))?.[0] ?? null;
}

/** Words of a name in small letters without accents: split at everything that is no letter and at capitals within. */
function wordsOf(name: string): readonly string[] {
  return name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2')
    .toLowerCase()
    .split(/[^\p{L}]+/u)
    .filter(Boolean);
}
