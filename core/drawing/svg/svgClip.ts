import type { ReadBudget } from '#core/drawing/readBudget.ts';
import { readSvgShape, SHAPES, type UserFrame } from '#core/drawing/svg/svgShape.ts';
import { readSvgTransform } from '#core/drawing/svg/svgTransform.ts';
import type { XmlElement } from '#core/drawing/svg/xmlTree.ts';
import { composeAffine, type Affine } from '#core/geometry/affine.ts';
import {
  boundContour,
  boundPoints,
  encloses,
  growBox,
  joinBoxes,
  overlap,
  type BoxMm,
} from '#core/geometry/box.ts';
import { fillRings, intersectRings, strokeLines, uniteRings, type Rings } from '#core/geometry/clip.ts';
import type { Contour } from '#core/geometry/contour.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { turnAlike } from '#core/geometry/polygon.ts';

/** What a clip lets through, in mm. */
export interface ClipArea {
  readonly rings: Rings;
  readonly box: BoxMm;
  /** True where it lets through its whole box. */
  readonly isBox: boolean;
}

/** Looking needs no cutting tolerance, mm. */
const LOOK_MM = 0.1;
/** A line is looked for through a clip as a band of this width, mm. */
const BAND_MM = 0.02;
/** Points of a clip that are looked at in the time of a step. */
const POINTS_A_STEP = 8;

/** Finds clips by their address and tells what shows through them. */
export class SvgClips {
  private readonly known = new Map<string, ClipArea | null>();

  constructor(
    private readonly byId: ReadonlyMap<string, XmlElement>,
    private readonly budget: ReadBudget,
  ) {}

  /** What both clips let through. */
  both(own: ClipArea | null, around: ClipArea | null): ClipArea | null {
    if (!own || !around) return own ?? around;
    if (own.isBox && around.isBox && encloses(around.box, own.box)) return own;
    this.spend(own, around);
    return areaOf(intersectRings(own.rings, around.rings));
  }

  /**
   * The clip of an element within that of its surroundings.
   *
   * @returns `null` for clips that are not followed: not in the file, with words, or measured by what they clip
   */
  within(
    address: string,
    affine: Affine,
    around: { readonly clip: ClipArea | null; readonly viewport: UserFrame },
  ): ClipArea | null {
    const id = /^\s*url\(\s*["']?#([^"')]+)["']?\s*\)/.exec(address)?.[1];
    const element = id === undefined ? undefined : this.byId.get(id);
    if (element?.name !== 'clipPath') return null;
    const key = `${id}|${affine.join()}`;
    let own = this.known.get(key);
    if (own === undefined) {
      own = this.read(element, affine, around.viewport);
      this.known.set(key, own);
    }
    return own === null ? null : this.both(own, around.clip);
  }

  /**
   * How much of a line or a filled shape shows through a clip.
   *
   * @param reachMm how far its stroke goes beyond the line
   */
  shows(clip: ClipArea, contour: Contour, isFilled: boolean, reachMm: number): 'all' | 'part' | 'none' {
    if (clip.rings.length === 0) return 'none';
    const box = growBox(boundContour(contour), Math.max(BAND_MM, reachMm));
    if (!overlap(box, clip.box)) return 'none';
    if (clip.isBox && encloses(growBox(clip.box, 2 * BAND_MM), box)) return 'all';
    this.spend(clip);
    this.budget.spend(contour.path.length);
    const points = flattenContour(contour, LOOK_MM);
    const covered =
      isFilled && points.length > 2
        ? [turnAlike(points)]
        : strokeLines([points], Math.max(BAND_MM, 2 * reachMm));
    return intersectRings(covered, clip.rings).length > 0 ? 'part' : 'none';
  }

  private read(element: XmlElement, affine: Affine, viewport: UserFrame): ClipArea | null {
    const { clipPathUnits, transform, 'clip-path': clipped } = element.attributes;
    if (clipPathUnits === 'objectBoundingBox' || (clipped ?? 'none') !== 'none') return null;
    const outer = transform ? composeAffine(affine, readSvgTransform(transform)) : affine;
    const rings: (readonly PointMm[])[] = [];
    for (const child of element.children) {
      const target = child.name === 'use' ? this.byId.get(addressOf(child).slice(1)) : child;
      if (!target || !SHAPES.has(target.name)) {
        if (target && (target.name === 'text' || target.name === 'g' || child.name === 'use')) return null;
        continue;
      }
      const maps = [child, ...(target === child ? [] : [target])].flatMap(({ attributes }) =>
        attributes['transform'] ? [readSvgTransform(attributes['transform'])] : [],
      );
      const shapeMap = maps.reduce(composeAffine, outer);
      const drawn = readSvgShape(target.name, target.attributes, shapeMap, viewport, this.budget);
      const own = drawn.map((contour) => flattenContour(contour, LOOK_MM));
      const rule = target.attributes['clip-rule'] ?? element.attributes['clip-rule'];
      rings.push(...fillRings(own, rule === 'evenodd'));
    }
    return areaOf(uniteRings(rings));
  }

  private spend(...areas: readonly ClipArea[]): void {
    const points = areas.reduce(
      (sum, { rings }) => sum + rings.reduce((some, { length }) => some + length, 0),
      0,
    );
    this.budget.spend(1 + points / POINTS_A_STEP);
  }
}

function addressOf({ attributes }: XmlElement): string {
  return attributes['href'] ?? attributes['xlink:href'] ?? '';
}

/**
 * What lies within some rings.
 *
 * @example areaOf([[{ x: 0, y: 0 }, { x: 2, y: 0 }, { x: 2, y: 1 }, { x: 0, y: 1 }]]).isBox // true
 */
export function areaOf(rings: Rings): ClipArea {
  if (rings.length === 0) return { rings, box: { minX: 0, minY: 0, maxX: 0, maxY: 0 }, isBox: false };
  const box = joinBoxes(rings.map(boundPoints));
  const [only] = rings;
  const isBox =
    rings.length === 1 &&
    only !== undefined &&
    only.every(({ x, y }) => (x === box.minX || x === box.maxX) && (y === box.minY || y === box.maxY));
  return { rings, box, isBox };
}
