import { itemAt } from '#core/collections/itemAt.ts';
import { ContourBuilder } from '#core/drawing/contourBuilder.ts';
import { MAX_CONTOURS, type DrawnContour } from '#core/drawing/drawing.ts';
import { dxfColour, trueColour } from '#core/drawing/dxf/dxfColour.ts';
import { drawBulged, drawDxfEntity, type BulgedPoint } from '#core/drawing/dxf/dxfEntities.ts';
import { ReadBudget, STEPS } from '#core/drawing/readBudget.ts';
import { numberOf, textOf, type DxfRecord } from '#core/drawing/dxf/dxfGroups.ts';
import { AppError } from '#core/errors/appError.ts';
import { composeAffine, type Affine } from '#core/geometry/affine.ts';
import type { PointMm } from '#core/geometry/point.ts';

export interface DxfLayer {
  readonly colour: string;
  readonly lineType: string;
  readonly isShown: boolean;
}

export interface DxfBlock {
  readonly base: PointMm;
  readonly entities: readonly DxfRecord[];
}

/** Entities that say nothing of lines and need no word. */
const SILENT: ReadonlySet<string> = new Set(['SEQEND', 'VIEWPORT', 'SECTION', 'ATTDEF', 'ATTRIB']);
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
}

/** Draws entities and the blocks they insert. */
export class DxfWalker {
  readonly contours: DrawnContour[] = [];
  private shapes = 0;
  private inserted = 0;
  private readonly budget = new ReadBudget();

  constructor(
    private readonly layers: ReadonlyMap<string, DxfLayer>,
    private readonly blocks: ReadonlyMap<string, DxfBlock>,
    private readonly leftOut: Set<string>,
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
    const pen = new ContourBuilder(ownPlane(record, toMm), this.budget);
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
    const pen = new ContourBuilder(ownPlane(record, toMm), this.budget);
    drawBulged(pen, corners, (flags & 1) === 1);
    this.keep(pen, look);
  }

  private keep(pen: ContourBuilder, { layer, colour, lineType }: Inherited): void {
    const shape = this.shapes++;
    for (const contour of pen.finish()) {
      if (this.contours.length >= MAX_CONTOURS) {
        throw new AppError('tooLarge', `the drawing has more than ${MAX_CONTOURS} lines`);
      }
      this.contours.push({
        id: this.contours.length,
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
    const name = own === '0' && around ? around.layer : own;
    const layer = this.layers.get(name) ?? { colour: '#000000', lineType: 'CONTINUOUS', isShown: true };
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
    return { layer: name, colour, lineType, depth: around?.depth ?? 0 };
  }

  private insert(record: DxfRecord, toMm: Affine, look: Inherited): void {
    const name = textOf(record, 2) ?? '';
    const block = this.blocks.get(name);
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
    const plane = ownPlane(record, toMm);
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

/** Entities drawn on a plane that faces away count x to the left. Lines, ellipses and splines never are. */
function ownPlane(record: DxfRecord, toMm: Affine): Affine {
  if (['LINE', 'ELLIPSE', 'SPLINE'].includes(record.type)) return toMm;
  return numberOf(record, 230, 1) < 0 ? composeAffine(toMm, [-1, 0, 0, 1, 0, 0]) : toMm;
}
