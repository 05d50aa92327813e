import type { BoxMm } from '#core/geometry/box.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';
import type { MarkScheme, MarkShape } from '#core/station/machine.ts';

/** One registration mark on a sheet. */
export interface Mark {
  /** Where it stands, as one says it: "top left", "left side, 2". */
  readonly name: string;
  /** What the sensor measures: the outer corner of an angle, the middle of a disc or a cross. */
  readonly spot: PointMm;
  /** Its outline. */
  readonly outline: readonly PointMm[];
  /** What the sensor needs clear around it. */
  readonly keepOut: BoxMm;
}

/** What a sensor needs clear around a mark where nobody said, mm. Common practice, no source. */
const USUAL_CLEAR_MM = 5;
/** Corners of the polygon that draws a disc: within 0.01 mm of it at 8 mm. */
const DISC_CORNERS = 64;

/**
 * A scheme with what was left out: an angle, at the corners alone, 5 mm clear around each.
 *
 * @example wholeMarks(marks).shape // 'angle'
 */
export function wholeMarks(scheme: MarkScheme): Required<{
  readonly [Field in keyof MarkScheme]: NonNullable<MarkScheme[Field]>;
}> {
  return {
    ...scheme,
    shape: scheme.shape ?? 'angle',
    alongSide: scheme.alongSide ?? 2,
    clearMm: scheme.clearMm ?? USUAL_CLEAR_MM,
  };
}

/**
 * The marks of a machine's scheme on a sheet: at its corners, the fourth only where the scheme has one, then between
 * those along the long sides; none for a scheme without.
 *
 * @example listMarks(marks, sheet).length // 4
 */
export function listMarks(given: MarkScheme, sheet: Pick<Sheet, 'widthMm' | 'heightMm'>): readonly Mark[] {
  const scheme = wholeMarks(given);
  if (scheme.scheme === 'none') return [];
  const isTall = sheet.heightMm >= sheet.widthMm;
  const count = scheme.scheme === 'fourCorners' ? 4 : 3;
  const corners = CORNERS.slice(0, count).map((place) => drawMark(place, scheme, sheet));
  const shares = Array.from({ length: scheme.alongSide - 2 }, (_, at) => (at + 1) / (scheme.alongSide - 1));
  const between = ([0, 1] as const).flatMap((side) =>
    shares.map((share, at): Place => {
      const name = `${SIDES[isTall ? 'tall' : 'wide'][side]}, ${at + 2}`;
      return isTall ? { name, right: side, down: share } : { name, right: share, down: side };
    }),
  );
  return [...corners, ...between.map((place) => drawMark(place, scheme, sheet))];
}

/** Where a mark stands: 0 and 1 at the edges, in parts of the way between the corner marks. */
interface Place {
  readonly name: string;
  readonly right: number;
  readonly down: number;
}

const CORNERS: readonly Place[] = [
  { name: 'top left', right: 0, down: 0 },
  { name: 'top right', right: 1, down: 0 },
  { name: 'bottom left', right: 0, down: 1 },
  { name: 'bottom right', right: 1, down: 1 },
];
const SIDES = { tall: ['left side', 'right side'], wide: ['top side', 'bottom side'] } as const;

function drawMark(
  { name, right, down }: Place,
  scheme: ReturnType<typeof wholeMarks>,
  { widthMm, heightMm }: Pick<Sheet, 'widthMm' | 'heightMm'>,
): Mark {
  const { shape, insetMm, lengthMm, clearMm } = scheme;
  // What is measured lies at the edge of an angle, and in the middle of the others.
  const inset = shape === 'angle' ? insetMm : insetMm + lengthMm / 2;
  const spot = {
    x: inset + right * (widthMm - 2 * inset),
    y: inset + down * (heightMm - 2 * inset),
  };
  const reach = insetMm + lengthMm + clearMm;
  const clear = (at: number, share: number, size: number): readonly [number, number] => {
    if (share === 0) return [0, reach];
    if (share === 1) return [size - reach, size];
    const half = (shape === 'angle' ? lengthMm : lengthMm / 2) + clearMm;
    return [at - half, at + half];
  };
  const [minX, maxX] = clear(spot.x, right, widthMm);
  const [minY, maxY] = clear(spot.y, down, heightMm);
  return {
    name,
    spot,
    outline: outlineOf(spot, { right, down }, scheme),
    keepOut: { minX, minY, maxX, maxY },
  };
}

function outlineOf(
  spot: PointMm,
  { right, down }: Pick<Place, 'right' | 'down'>,
  { shape, lengthMm, thicknessMm }: ReturnType<typeof wholeMarks>,
): readonly PointMm[] {
  const half = lengthMm / 2;
  const thin = thicknessMm / 2;
  // An angle opens towards the middle of the sheet.
  const at = (x: number, y: number): PointMm => ({
    x: spot.x + (right > 0.5 ? -x : x),
    y: spot.y + (down > 0.5 ? -y : y),
  });
  const drawn: Readonly<Record<MarkShape, () => readonly PointMm[]>> = {
    angle: () => [
      at(0, 0),
      at(lengthMm, 0),
      at(lengthMm, thicknessMm),
      at(thicknessMm, thicknessMm),
      at(thicknessMm, lengthMm),
      at(0, lengthMm),
    ],
    disc: () =>
      Array.from({ length: DISC_CORNERS }, (_, corner) => {
        const angle = (2 * Math.PI * corner) / DISC_CORNERS;
        return { x: spot.x + half * Math.cos(angle), y: spot.y + half * Math.sin(angle) };
      }),
    cross: () => [
      at(-half, -thin),
      at(-thin, -thin),
      at(-thin, -half),
      at(thin, -half),
      at(thin, -thin),
      at(half, -thin),
      at(half, thin),
      at(thin, thin),
      at(thin, half),
      at(-thin, half),
      at(-thin, thin),
      at(-half, thin),
    ],
  };
  return drawn[shape]();
}

const COUNT_WORDS = { none: 'no', threeCorners: 'three', fourCorners: 'four' } as const;
const SHAPE_WORDS: Readonly<Record<MarkShape, string>> = { angle: 'angles', disc: 'discs', cross: 'crosses' };

/**
 * The marks in words: "four discs of 5 mm, 12 mm in".
 *
 * @example describeMarks({ scheme: 'fourCorners', shape: 'disc', lengthMm: 5, thicknessMm: 1, insetMm: 12 }) // 'four discs of 5 mm, 12 mm from the edges'
 */
export function describeMarks(given: MarkScheme): string {
  const { scheme, shape, lengthMm, thicknessMm, insetMm, alongSide } = wholeMarks(given);
  if (scheme === 'none') return 'no marks';
  const size = shape === 'disc' ? `${lengthMm}` : `${lengthMm} × ${thicknessMm}`;
  const more = alongSide > 2 ? `, ${alongSide} along each long side` : '';
  return `${COUNT_WORDS[scheme]} ${SHAPE_WORDS[shape]} of ${size} mm, ${insetMm} mm from the edges${more}`;
}

/** How large marks are printed, and where, mm from the upper left corner. */
export interface PrintedMarks {
  /** The diameter of a disc, the length of a cross or a bar. */
  readonly lengthMm: number;
  readonly spots: readonly { readonly name: string; readonly xMm: number; readonly yMm: number }[];
}

/**
 * The marks of a sheet as its machine is told of them: how large, and where.
 *
 * @returns undefined for a scheme without
 * @example printedMarks(marks, sheet)?.spots.length // 4
 */
export function printedMarks(
  scheme: MarkScheme,
  sheet: Pick<Sheet, 'widthMm' | 'heightMm'>,
): PrintedMarks | undefined {
  const spots = listMarks(scheme, sheet).map(({ name, spot }) => ({ name, xMm: spot.x, yMm: spot.y }));
  return spots.length === 0 ? undefined : { lengthMm: scheme.lengthMm, spots };
}
