/** A word of the trade: what it is called, how else it is said, and what it means in two lines. */
export interface TradeWord {
  readonly id: string;
  readonly word: string;
  /** Other forms of it, as they stand in a sentence. */
  readonly also: readonly string[];
  readonly lines: readonly [string, string];
}

/** The words of the trade that screens use, in the order of the work. Screens, help and the page of words share them. */
export const TRADE_WORDS = [
  {
    id: 'liner',
    word: 'liner',
    also: ['liners'],
    lines: [
      'The paper or film a sticker is peeled from.',
      'A kiss cut stops at it; cut, it tears when you weed.',
    ],
  },
  {
    id: 'face',
    word: 'face',
    also: ['faces'],
    lines: ['The layer you keep: vinyl, paper, film.', 'It is glued to the liner and printed on top.'],
  },
  {
    id: 'laminate',
    word: 'laminate',
    also: ['laminated'],
    lines: ['A clear film over the print.', 'It adds thickness: a laminated sheet wants more force.'],
  },
  {
    id: 'caliper',
    word: 'caliper',
    also: ['calipers', 'thickness'],
    lines: ['How thick a layer is, in µm or mil.', 'Measure it with a caliper; a ~ means it is assumed.'],
  },
  {
    id: 'force',
    word: 'force',
    also: [],
    lines: [
      'How hard the blade is pressed down.',
      'Too little leaves corners hanging, too much cuts the liner or the mat.',
    ],
  },
  {
    id: 'gf',
    word: 'gf',
    also: ['gram-force'],
    lines: ['Gram-force: what one gram weighs.', 'Put the tip on a kitchen balance and it shows gf.'],
  },
  {
    id: 'level',
    word: 'level',
    also: ['levels'],
    lines: [
      'A number on a machine’s own dial, not a weight.',
      'Level 8 of two machines is seldom the same force.',
    ],
  },
  {
    id: 'exposure',
    word: 'exposure',
    also: ['blade depth'],
    lines: [
      'How far the tip stands out of its holder.',
      'A little more than what is cut is enough; more drags.',
    ],
  },
  {
    id: 'offset',
    word: 'offset',
    also: [],
    lines: [
      'How far the tip trails behind the middle of its holder.',
      'Too small rounds corners, too large leaves ears.',
    ],
  },
  {
    id: 'overcut',
    word: 'overcut',
    also: [],
    lines: ['How far a closed line is cut past its start.', 'It frees the last corner.'],
  },
  {
    id: 'pass',
    word: 'pass',
    also: ['passes'],
    lines: ['The same line cut once more.', 'Two light passes press less than one heavy one.'],
  },
  {
    id: 'kiss',
    word: 'kiss',
    also: ['kissed'],
    lines: [
      'A cut through the face that leaves the liner whole.',
      'The sticker peels off, the sheet stays together.',
    ],
  },
  {
    id: 'through',
    word: 'through',
    also: ['cut through'],
    lines: ['A cut through all layers: the piece falls free.', 'The mat below must not be scarred.'],
  },
  {
    id: 'perforated',
    word: 'perforated',
    also: ['perforation', 'perforate'],
    lines: [
      'Cut through, with short tabs left between the cuts.',
      'The piece stays in while it runs and pops out by hand.',
    ],
  },
  {
    id: 'tab',
    word: 'tab',
    also: ['tabs'],
    lines: [
      'A short bridge that holds a piece in its sheet.',
      'Long enough to bear the run, short enough for a thumb.',
    ],
  },
  {
    id: 'score',
    word: 'score',
    also: ['scored'],
    lines: ['A cut part of the way into a single layer.', 'It folds or tears along the line.'],
  },
  {
    id: 'crease',
    word: 'crease',
    also: ['creases', 'creased'],
    lines: ['A line pressed with a blunt tool, to fold along.', 'Nothing is cut.'],
  },
  {
    id: 'window',
    word: 'window',
    also: [],
    lines: ['The forces between too little and too much.', 'Its middle forgives most: aim there.'],
  },
  {
    id: 'times',
    word: 'times in 100',
    also: [],
    lines: [
      'Of a hundred cuts at this force, so many come out right.',
      'The rest are too shallow or too deep.',
    ],
  },
  {
    id: 'predicted',
    word: 'predicted',
    also: ['prediction', 'best guess'],
    lines: [
      'Nobody has cut this here yet.',
      'Worked out from the stack and from like sheets: cut a test first.',
    ],
  },
  {
    id: 'tried',
    word: 'tried',
    also: [],
    lines: ['Kept from a cut, or by hand; few runs speak for it yet.', 'Look at the first piece.'],
  },
  {
    id: 'proven',
    word: 'proven',
    also: [],
    lines: ['Runs went clean with it.', 'It stays proven until one fails.'],
  },
  {
    id: 'doubted',
    word: 'doubted',
    also: [],
    lines: [
      'Something has changed since it worked: lot, blade, or the last run failed.',
      'Cut a test before the job.',
    ],
  },
  {
    id: 'lot',
    word: 'lot',
    also: ['lots'],
    lines: [
      'One delivery of a material, by the code on the pack.',
      'Two lots of one name may want different force.',
    ],
  },
  {
    id: 'tack',
    word: 'tack',
    also: [],
    lines: ['How well a mat sticks.', 'It falls with loads and lint; washing brings some back.'],
  },
  {
    id: 'marks',
    word: 'marks',
    also: ['mark', 'registration marks'],
    lines: [
      'Printed signs that the machine looks for before it cuts.',
      'So the cut follows the print, also on a crooked sheet.',
    ],
  },
  {
    id: 'bleed',
    word: 'bleed',
    also: [],
    lines: ['Print that goes on past the cut line.', 'A small shift then shows no white edge.'],
  },
  {
    id: 'carrier',
    word: 'carrier',
    also: ['carriers', 'carrier cards'],
    lines: ['A card of stickers, cut out of the sheet as one.', 'Often with a hole to hang it by.'],
  },
  {
    id: 'weeding',
    word: 'weeding',
    also: ['weed'],
    lines: [
      'Peeling off what is not wanted around the pieces.',
      'A cut that is too shallow takes the pieces along.',
    ],
  },
  {
    id: 'drift',
    word: 'drift',
    also: ['drifts'],
    lines: [
      'Cuts need more or less force than they used to.',
      'A blade wears, a pack takes up water, a holder loosens.',
    ],
  },
] as const satisfies readonly TradeWord[];

export type TradeWordId = (typeof TRADE_WORDS)[number]['id'];

/**
 * The words of the trade that a text uses, in the order of the list.
 *
 * @example wordsIn('Kiss at 106 gf').map(({ id }) => id) // ['gf', 'kiss']
 */
export function wordsIn(text: string): readonly (TradeWord & { readonly id: TradeWordId })[] {
  const said = ` ${text.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ')} `;
  return TRADE_WORDS.filter(({ word, also }) =>
    [word, ...also].some((form) => said.includes(` ${form.replace('-', ' ')} `)),
  );
}

/**
 * A word of the list by its id.
 *
 * @example tradeWord('liner').word // 'liner'
 */
export function tradeWord(id: TradeWordId): TradeWord {
  return TRADE_WORDS.find((one) => one.id === id) as TradeWord;
}
