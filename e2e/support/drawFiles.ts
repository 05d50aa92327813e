import { execFileSync } from 'node:child_process';

/** Draws a machine file with hp2xx at its real size. */
export function drawHpgl(file: string, picture: string, dotsPerMm: number): void {
  const dpi = String(dotsPerMm * 25.4);
  execFileSync('hp2xx', ['-q', '-m', 'png', '-t', '-d', dpi, '-p', '1', '-f', picture, file]);
}

/** Draws an SVG file with librsvg on white at its real size. */
export function drawSvg(file: string, picture: string, dotsPerMm: number): void {
  const dpi = String(dotsPerMm * 25.4);
  execFileSync('rsvg-convert', ['-d', dpi, '-p', dpi, '-b', 'white', '-o', picture, file]);
}
