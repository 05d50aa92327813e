import { itemAt } from '#core/collections/itemAt.ts';
import { ContourBuilder } from '#core/drawing/contourBuilder.ts';
import { MAX_CONTOURS, type DrawnContour } from '#core/drawing/drawing.ts';
import { dxfColour, trueColour } from '#core/drawing/dxf/dxfColour.ts';
import { drawBulged, drawDxfEntity, type BulgedPoint } from '#core/drawing/dxf/dxfEntities.ts';
import { ReadBudget, STEPS } from '#core/drawing/readBudget.ts';
import { numberOf, textOf, type DxfRecord } from '#core/drawing/dxf/dxfGroups.ts';
import { ellipseOf, planeOf } from '#core/drawing/dxf/dxfPlane.ts';
import type { Tally } from '#core/drawing/tally.ts';
import { AppError } from '#core/errors/appError.ts';
import { composeAffine, type Affine } from '#core/geometry/affine.ts';
import type { PointMm } from '#core/geometry/point.ts';

export interface DxfLayer {
  readonly name: string;
  readonly colour: string;
  readonly lineType: string;
  readonly isShown: boolean;
}

export interface DxfBlock {
  readonly base: PointMm;
  readonly entities: readonly DxfRecord[];
}

/** Entities that say nothing of lines and need no word. */
const SILENT: ReadonlySet<string> = new Set(['SEQEND', 'VIEWPORT', 'SECTION', 'ENDSEC']);
/** The layer that measuring puts its points on; it is never drawn. */
const UNDRAWN_LAYER = 'DEFPOINTS';
const MAX_NEST = 24;
/** Group codes that are looked through in the time of a step. */
const CODES_A_STEP = 10;
/** Vertices that only span a curve, and are not on it. */
const FRAME_VERTEX = 16;

interface Inherited {
  readonly layer: string;
  readonly colour: string;
  readonly lineType: string;
  readonly depth: number;
  /** On a sheet that the drawing is laid out on. */
  readonly isPaper: boolean;
  /** Why it is left out; `null` for what is drawn. */
  readonly why: string | null;
}

/** Draws entities and the blocks they insert. */
export class DxfWalker {
  readonly contours: DrawnContour[] = [];
  /** Line numbers given out, also to what is not kept. */
  idsGiven = 0;
  /** Lines that lie on a sheet of their own, not in the drawing. */
  onPaper = 0;
  private shapes = 0;
  private inserted = 0;
  private readonly budget = new ReadBudget();

  constructor(
    /** By their names in capitals; those that the file does not list are added. */
    private readonly layers: Map<string, DxfLayer>,
    private readonly blocks: ReadonlyMap<string, DxfBlock>,
    private readonly leftOut: Tally,
    /** Whether the sheets that a drawing is laid out on are read, instead of the drawing. */
    private readonly isPaper = false,
  ) {}

  /** @throws AppError `badDrawing` with the line, `tooLarge` */
  walk(entities: readonly DxfRecord[], toMm: Affine, around: Inherited | null = null): void {
    for (let index = 0; index < entities.length; index++) {
      const record = itemAt(entities, index);
      this.budget.spend(STEPS.entity + record.codes.length / CODES_A_STEP);
      if (record.type !== 'POLYLINE') {
        this.visit(record, toMm, around);
        continue;
      }
      const corners: BulgedPoint[] = [];
      while (entities[index + 1]?.type === 'VERTEX') {
        const vertex = itemAt(entities, ++index);
        if ((numberOf(vertex, 70, 0) & FRAME_VERTEX) !== 0) continue;
        corners.push({
          x: numberOf(vertex, 10, 0),
          y: numberOf(vertex, 20, 0),
          bulge: numberOf(vertex, 42, 0),
        });
      }
      this.polyline(record, corners, toMm, around);
    }
  }

  private visit(record: DxfRecord, toMm: Affine, around: Inherited | null): void {
    if (SILENT.has(record.type)) return;
    const look = this.lookOf(record, around);
    if (!look) return;
    if (record.type === 'INSERT') return this.insert(record, toMm, look);
    const plane = record.type === 'ELLIPSE' ? ellipseOf(record, toMm) : planeOf(record, toMm);
    const pen = new ContourBuilder(plane, this.budget);
    if (drawDxfEntity(pen, record)) this.keep(pen, look);
    else this.leftOut.add(`${record.type.toLowerCase()} entities`);
  }

  private polyline(
    record: DxfRecord,
    corners: readonly BulgedPoint[],
    toMm: Affine,
    around: Inherited | null,
  ): void {
    const look = this.lookOf(record, around);
    if (!look) return;
    const flags = numberOf(record, 70, 0);
    if ((flags & (16 | 64)) !== 0) {
      this.leftOut.add('meshes');
      return;
    }
    const pen = new ContourBuilder(planeOf(record, toMm), this.budget);
    drawBulged(pen, corners, (flags & 1) === 1);
    this.keep(pen, look);
  }

  private keep(pen: ContourBuilder, { layer, colour, lineType, isPaper, why }: Inherited): void {
    const shape = this.shapes++;
    for (const contour of pen.finish()) {
      if (this.idsGiven >= MAX_CONTOURS) {
        throw new AppError('tooLarge', `the drawing has more than ${MAX_CONTOURS} lines`);
      }
      // Counted also where it is not kept: numbers that jobs have kept go on meaning the same lines.
      const id = this.idsGiven++;
      if (isPaper) this.onPaper++;
      if (why) this.leftOut.add(why);
      if (why || isPaper !== this.isPaper) continue;
      this.contours.push({
        id,
        contour,
        layer,
        strokeColour: colour,
        strokeWidthMm: null,
        fillColour: null,
        dash: /^continuous$/i.test(lineType) ? null : lineType.slice(0, 40),
        shape,
      });
    }
  }

  /** What an entity looks like, or `null` on a layer that is switched off. */
  private lookOf(record: DxfRecord, around: Inherited | null): Inherited | null {
    const own = textOf(record, 8) ?? '0';
    const named = own === '0' && around ? around.layer : own;
    // Names are the same whatever their case: as the table spells them, else as the first of them does.
    const known = this.layers.get(named.toUpperCase());
    const layer = known ?? { name: named, colour: '#000000', lineType: 'CONTINUOUS', isShown: true };
    if (!known) this.layers.set(named.toUpperCase(), layer);
    const { name } = layer;
    if (!layer.isShown) {
      this.leftOut.add('layers that are switched off');
      return null;
    }
    const index = numberOf(record, 62, 256);
    const exact = textOf(record, 420);
    const colour =
      exact !== null
        ? trueColour(Number(exact))
        : index === 256
          ? layer.colour
          : index === 0
            ? (around?.colour ?? layer.colour)
            : dxfColour(Math.abs(index));
    const type = textOf(record, 6) ?? 'BYLAYER';
    const lineType =
      type.toUpperCase() === 'BYLAYER'
        ? layer.lineType
        : type.toUpperCase() === 'BYBLOCK'
          ? (around?.lineType ?? 'CONTINUOUS')
          : type;
    const isUnseen = numberOf(record, 60, 0) === 1;
    const isMeasure = name.toUpperCase() === UNDRAWN_LAYER;
    const why = isUnseen ? 'invisible lines' : isMeasure ? `lines on ${name}, which is never drawn` : null;
    return {
      layer: name,
      colour,
      lineType,
      depth: around?.depth ?? 0,
      isPaper: around?.isPaper ?? numberOf(record, 67, 0) === 1,
      why: around?.why ?? why,
    };
  }

  private insert(record: DxfRecord, toMm: Affine, look: Inherited): void {
    const name = textOf(record, 2) ?? '';
    const block = this.blocks.get(name.toUpperCase());
    if (!block) {
      this.leftOut.add('blocks that are not in the file');
      return;
    }
    if (look.depth >= MAX_NEST) {
      throw new AppError('badDrawing', `line ${record.line}: block "${name}" stands within itself`);
    }
    const n = (code: number, fallback: number) => numberOf(record, code, fallback);
    const [scaleX, scaleY] = [n(41, 1), n(42, 1)];
    const angle = (n(50, 0) * Math.PI) / 180;
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    const plane = planeOf(record, toMm);
    const [columns, rows] = [Math.max(1, n(70, 1)), Math.max(1, n(71, 1))];
    for (let row = 0; row < rows; row++) {
      for (let column = 0; column < columns; column++) {
        if (++this.inserted > MAX_CONTOURS) {
          throw new AppError('tooLarge', `blocks are inserted more than ${MAX_CONTOURS} times`);
        }
        const [dx, dy] = [column * n(44, 0), row * n(45, 0)];
        const place: Affine = [
          scaleX * cos,
          scaleX * sin,
          -scaleY * sin,
          scaleY * cos,
          n(10, 0) + dx * cos - dy * sin,
          n(20, 0) + dx * sin + dy * cos,
        ];
        const inner = composeAffine(plane, composeAffine(place, [1, 0, 0, 1, -block.base.x, -block.base.y]));
        this.walk(block.entities, inner, { ...look, depth: look.depth + 1 });
      }
    }
  }
}
