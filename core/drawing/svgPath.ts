import { SVGPathData, type SVGCommand } from 'svg-pathdata';
import { AppError } from '#core/errors/appError.ts';
import { arcToCubics } from '#core/geometry/arcToCubics.ts';
import type { Contour, Segment } from '#core/geometry/contour.ts';
import { distanceMm, mixPoints, type PointMm } from '#core/geometry/point.ts';

/**
 * Reads path data into contours, in the path's own units. Quadratics are raised to cubics exactly, arcs become
 * cubics within 4.3e-6 of their radius. Parts that draw nothing (a lone move, zero length) are left out.
 *
 * @throws AppError `badDrawing` when the data breaks the path grammar or holds a number that is not finite
 */
export function readSvgPath(data: string): readonly Contour[] {
  const builder = new ContourBuilder();
  for (const command of parse(data)) {
    for (const value of Object.values(command)) {
      if (typeof value === 'number' && !Number.isFinite(value)) {
        throw new AppError('badDrawing', 'a path holds a number that is not finite');
      }
    }
    builder.take(command);
  }
  return builder.finish();
}

function parse(data: string): readonly SVGCommand[] {
  try {
    return new SVGPathData(data).toAbs().normalizeHVZ(false, true, true).normalizeST().commands;
  } catch (error) {
    const reason = error instanceof Error ? error.message : String(error);
    throw new AppError('badDrawing', `a path cannot be read: ${reason.slice(0, 120)}`);
  }
}

/** Collects segments and starts a new contour at every move and close. */
class ContourBuilder {
  private readonly contours: Contour[] = [];
  private segments: Segment[] = [];
  private start: PointMm = { x: 0, y: 0 };
  private at: PointMm = { x: 0, y: 0 };

  take(command: SVGCommand): void {
    switch (command.type) {
      case SVGPathData.MOVE_TO:
        this.end(false);
        this.start = this.at = { x: command.x, y: command.y };
        break;
      case SVGPathData.LINE_TO:
        this.add({ kind: 'line', from: this.at, to: { x: command.x, y: command.y } });
        break;
      case SVGPathData.CURVE_TO:
        this.add({
          kind: 'cubic',
          from: this.at,
          control1: { x: command.x1, y: command.y1 },
          control2: { x: command.x2, y: command.y2 },
          to: { x: command.x, y: command.y },
        });
        break;
      case SVGPathData.QUAD_TO:
        this.add(raiseQuadratic(this.at, { x: command.x1, y: command.y1 }, { x: command.x, y: command.y }));
        break;
      case SVGPathData.ARC:
        this.addArc(command);
        break;
      case SVGPathData.CLOSE_PATH:
        if (distanceMm(this.at, this.start) > 0) this.add({ kind: 'line', from: this.at, to: this.start });
        this.end(true);
        this.at = this.start;
        break;
      default:
        throw new AppError('badDrawing', 'a path holds a command that was not made plain');
    }
  }

  finish(): readonly Contour[] {
    this.end(false);
    return this.contours;
  }

  private addArc(command: Extract<SVGCommand, { type: typeof SVGPathData.ARC }>): void {
    const to = { x: command.x, y: command.y };
    const cubics = arcToCubics({
      from: this.at,
      to,
      radiusX: command.rX,
      radiusY: command.rY,
      tiltRad: (command.xRot * Math.PI) / 180,
      isLarge: Boolean(command.lArcFlag),
      isSweep: Boolean(command.sweepFlag),
    });
    for (const cubic of cubics) this.add(cubic);
    this.at = to;
  }

  private add(segment: Segment): void {
    this.at = segment.to;
    const isNothing =
      distanceMm(segment.from, segment.to) === 0 &&
      (segment.kind === 'line' ||
        (distanceMm(segment.from, segment.control1) === 0 &&
          distanceMm(segment.from, segment.control2) === 0));
    if (!isNothing) this.segments.push(segment);
  }

  private end(isClosed: boolean): void {
    if (this.segments.length > 0) this.contours.push({ segments: this.segments, isClosed });
    this.segments = [];
  }
}

function raiseQuadratic(from: PointMm, control: PointMm, to: PointMm): Segment {
  return {
    kind: 'cubic',
    from,
    control1: mixPoints(from, control, 2 / 3),
    control2: mixPoints(to, control, 2 / 3),
    to,
  };
}
