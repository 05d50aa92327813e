import { AppError } from '#core/errors/appError.ts';
import { composeAffine, type Affine } from '#core/geometry/affine.ts';

/** Plotter units in one millimetre of a drawing: a unit is 0.025 mm. */
export const UNITS_PER_MM = 40;

type Corner = readonly [x: number, y: number];

/** From the figures of a plot to mm: its scaling, its scaling points, its turn. */
export class PlotterScale {
  /** The scaling points, plotter units, where the plot names them. */
  private first: Corner | null = null;
  private second: Corner | null = null;
  private scaling: readonly number[] = [];
  private turnDeg = 0;

  /** IP. */
  place([x1, y1, x2, y2]: readonly number[]): void {
    if (x1 === undefined || y1 === undefined) {
      this.first = this.second = null;
      return;
    }
    const moved: Corner | null =
      this.first && this.second
        ? [x1 + this.second[0] - this.first[0], y1 + this.second[1] - this.first[1]]
        : null;
    this.first = [x1, y1];
    this.second = x2 === undefined || y2 === undefined ? moved : [x2, y2];
  }

  /** SC: none ends it. */
  scale(figures: readonly number[]): void {
    this.scaling = figures.length >= 4 ? figures : [];
  }

  /** RO: by quarter turns. */
  turn([degrees = 0]: readonly number[]): void {
    this.turnDeg = degrees;
  }

  /** From user units to mm, y downwards. @throws AppError `badDrawing` for a scale that says no size */
  toMm(): Affine {
    const angle = (Math.round(this.turnDeg / 90) * Math.PI) / 2;
    const [cos, sin] = [Math.round(Math.cos(angle)), Math.round(Math.sin(angle))];
    const turned = composeAffine(
      [1 / UNITS_PER_MM, 0, 0, -1 / UNITS_PER_MM, 0, 0],
      [cos, sin, -sin, cos, 0, 0],
    );
    return composeAffine(turned, this.toUnits());
  }

  private toUnits(): Affine {
    const [xMin, xMax, yMin, yMax, kind = 0, left = 50, bottom = 50] = this.scaling;
    if (xMin === undefined || xMax === undefined || yMin === undefined || yMax === undefined) {
      return [1, 0, 0, 1, 0, 0];
    }
    const [x0, y0] = this.first ?? [0, 0];
    // By factors: figures are multiplied, whatever the page.
    if (kind === 2) return nonzero([xMax, 0, 0, yMax, x0 - xMin * xMax, y0 - yMin * yMax]);
    if (!this.first || !this.second) {
      throw new AppError(
        'badDrawing',
        'the plot is scaled by SC to the page of a plotter it does not name (no IP); save it in plotter units',
      );
    }
    const width = this.second[0] - x0;
    const height = this.second[1] - y0;
    const [a, d] = [width / (xMax - xMin), height / (yMax - yMin)];
    if (kind !== 1) return nonzero([a, 0, 0, d, x0 - xMin * a, y0 - yMin * d]);
    const size = Math.min(Math.abs(a), Math.abs(d));
    const [even, up] = [Math.sign(a) * size, Math.sign(d) * size];
    const spareX = (width - even * (xMax - xMin)) * (left / 100);
    const spareY = (height - up * (yMax - yMin)) * (bottom / 100);
    return nonzero([even, 0, 0, up, x0 + spareX - xMin * even, y0 + spareY - yMin * up]);
  }
}

function nonzero(affine: Affine): Affine {
  const [a, , , d] = affine;
  if (affine.every(Number.isFinite) && a !== 0 && d !== 0) return affine;
  throw new AppError('badDrawing', 'the plot is scaled by SC to no size');
}
