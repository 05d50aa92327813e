import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { MaxRectsPacker } from 'maxrects-packer';
import {
  measureReading,
  sheetOfCurves,
  sheetOfIcons,
  sheetOfPaths,
  sheetsOfEmoji,
  sheetOfPolygons,
  time,
  type ReadMeasure,
} from '#benchmarks/measureReading.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { boundPoints } from '#core/geometry/box.ts';
import { fillHoles, offsetRings, strokeLines, type Rings } from '#core/geometry/clip.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';
import { orderTravel, type TravelStop } from '#core/passes/orderTravel.ts';
import { cutTabs } from '#core/perforation/cutTabs.ts';
import { placeTabs } from '#core/perforation/placeTabs.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { arrangePieces } from '#core/sheet/arrangePieces.ts';
import type { NestResult } from '#core/sheet/nest/nestPieces.ts';
import { measureScattered, nearestNeighbour, type ScatteredScore } from '#benchmarks/measureScattered.ts';
import { TSPLIB } from '#core/tests/tsplib.ts';

/** What was measured. Times in ms, lengths in mm. */
export interface JobMeasures {
  readonly reading: readonly ReadMeasure[];
  readonly tsplib: readonly {
    readonly name: string;
    readonly optimum: number;
    readonly found: number;
    readonly ms: number;
  }[];
  readonly scattered: readonly ScatteredScore[];
  readonly travel: {
    readonly contours: number;
    readonly nearestMm: number;
    readonly nearestMs: number;
    readonly oursMm: number;
    readonly oursMs: number;
  };
  readonly nesting: readonly {
    readonly name: string;
    readonly copies: string;
    readonly boxes: string;
    readonly ours: string;
    readonly unit: string;
    readonly gain: number;
    /** Rectangles leave no bays: there the goal is to be no worse. */
    readonly isRectangles: boolean;
    readonly ms: number;
  }[];
  readonly perforation: { readonly contours: number; readonly tabs: number; readonly ms: number };
}

const SPACING_MM = 2;
const SHEET = { name: 'A4', widthMm: 210, heightMm: 297, marginMm: 10 };
const NEST_MS = 18_000;
/** As many as the screen tries while nobody presses stop. */
const TRIES = 400;

export function measureJobs(root: string): JobMeasures {
  const icons = listIcons(root);
  return {
    reading: [
      measureReading('2,000 icons, mostly arcs', sheetOfIcons(icons)),
      measureReading('long outlines of curves', sheetOfCurves()),
      measureReading('polygons of many points', sheetOfPolygons()),
      measureReading('100,000 paths, the most that is read', sheetOfPaths()),
      ...sheetsOfEmoji().map(({ name, text }) => measureReading(name, text)),
    ],
    tsplib: TSPLIB.map(measureTrip),
    scattered: [2000, 5000].map(measureScattered),
    travel: measureTravel(),
    nesting: measureNesting(root, icons),
    perforation: measurePerforation(),
  };
}

function listIcons(root: string): readonly string[] {
  const folder = join(root, 'node_modules/lucide-static/icons');
  return readdirSync(folder)
    .filter((file) => file.endsWith('.svg'))
    .map((file) => readFileSync(join(folder, file), 'utf8'));
}

function measureTrip({ name, optimum, cities }: (typeof TSPLIB)[number]): JobMeasures['tsplib'][number] {
  const [first, ...rest] = cities.map(([x, y]) => ({ x, y }));
  const start = first as PointMm;
  const stops = rest.map((point): TravelStop => ({ isClosed: true, points: [point] }));
  let order: readonly number[] = [];
  const ms = time(() => {
    order = orderTravel(stops, start, { end: start, before: [], kicks: 1500 }).map(({ stop }) => stop);
  });
  const trip = [start, ...order.map((stop) => rest[stop] as PointMm), start];
  const found = trip
    .slice(1)
    .reduce((sum, city, at) => sum + Math.round(distanceMm(trip[at] as PointMm, city)), 0);
  return { name, optimum, found, ms };
}

function measureTravel(): JobMeasures['travel'] {
  const random = seededRandom(8);
  const contours = 5000;
  const stops = Array.from({ length: contours }, (): TravelStop => {
    const [x, y, radius] = [random() * 600, random() * 2000, 2 + random() * 3];
    const points = Array.from({ length: 12 }, (_, at) => ({
      x: x + radius * Math.cos((at * Math.PI) / 6),
      y: y + radius * Math.sin((at * Math.PI) / 6),
    }));
    return { isClosed: true, points };
  });
  const home = { x: 0, y: 2000 };
  let nearestMm = 0;
  const nearestMs = time(() => (nearestMm = nearestNeighbour(stops, home)));
  let oursMm = 0;
  const oursMs = time(() => {
    let at: PointMm = home;
    oursMm = 0;
    for (const { stop, entry } of orderTravel(stops, home, { end: null, before: [], kicks: 0 })) {
      const point = stops[stop]?.points[entry] as PointMm;
      oursMm += distanceMm(at, point);
      at = point;
    }
  });
  return { contours, nearestMm, nearestMs, oursMm, oursMs };
}

function measureNesting(root: string, icons: readonly string[]): JobMeasures['nesting'] {
  const random = seededRandom(5);
  const fifty = Array.from({ length: 50 }, () => icons[Math.floor(random() * icons.length)] as string);
  const demo = (file: string, wanted: RegExp): readonly Rings[] => {
    const drawing = readSvg(readFileSync(join(root, 'demo/drawings', file), 'utf8'));
    const lines = drawing.contours.filter(
      ({ layer, contour }) => wanted.test(layer ?? '') && contour.isClosed,
    );
    return lines.map((line) => [flattenContour(line.contour, 0.1).slice(0, -1)]);
  };
  const [label, round, oval, packet] = [
    demo('jar-label.svg', /outline/)[0],
    demo('tide-stickers.svg', /kiss/)[0],
    demo('tide-stickers.svg', /kiss/).at(-1),
    demo('seed-packet.svg', /outline/)[0],
  ] as [Rings, Rings, Rings, Rings];
  return [
    layMany("the demo's shapes mixed: label, round, oval", [label, round, oval], 16),
    fillSheet("the demo's round tide sticker", round),
    layMany('fifty icons, 34 mm, with a border of 1.5 mm', fifty.map(silhouetteOf), 4),
    { ...fillSheet("the demo's jar label", label), isRectangles: true },
    { ...fillSheet("the demo's seed packet", packet), isRectangles: true },
    { ...layMany('ten kinds of rectangles', mixedRectangles(3, 10), 5), isRectangles: true },
    { ...layMany('twenty kinds of rectangles', mixedRectangles(4, 20), 2), isRectangles: true },
  ];
}

function mixedRectangles(seed: number, count: number): readonly Rings[] {
  const random = seededRandom(seed);
  return Array.from({ length: count }, () => {
    const [width, height] = [15 + 75 * random(), 15 + 75 * random()];
    return [
      [
        { x: 0, y: 0 },
        { x: width, y: 0 },
        { x: width, y: height },
        { x: 0, y: height },
      ],
    ];
  });
}

/** What an icon of 34 mm covers with 1.5 mm around its strokes. */
function silhouetteOf(text: string): Rings {
  const sized = text.replace('width="24"', 'width="34mm"').replace('height="24"', 'height="34mm"');
  const lines = readSvg(sized).contours.map(({ contour }) => flattenContour(contour, 0.1));
  return fillHoles(offsetRings(strokeLines(lines, 2), 1.5));
}

function fillSheet(name: string, silhouette: Rings): JobMeasures['nesting'][number] {
  const { best, ms } = nest([silhouette], 0);
  const boxes = countBoxes(silhouette);
  const ours = best.placements.length;
  return {
    name,
    copies: 'as many as fit on A4',
    boxes: String(boxes),
    ours: String(ours),
    unit: 'pieces',
    gain: ours / boxes - 1,
    isRectangles: false,
    ms,
  };
}

function layMany(name: string, shapes: readonly Rings[], copies: number): JobMeasures['nesting'][number] {
  const { best, ms } = nest(shapes, copies);
  const packer = packBoxes(
    shapes.flatMap((shape) => Array.from({ length: copies }, () => boundPoints(shape.flat()))),
  );
  const deepest = Math.max(...(packer.bins.at(-1)?.rects ?? []).map((rect) => rect.y + rect.height));
  const boxes = packer.bins.length - 1 + deepest / boxRoom().height;
  const ours = best.sheets - 1 + best.lastShare;
  return {
    name,
    copies: `${copies} of each`,
    boxes: boxes.toFixed(2),
    ours: ours.toFixed(2),
    unit: 'sheets of A4',
    gain: boxes / ours - 1,
    isRectangles: false,
    ms,
  };
}

function nest(shapes: readonly Rings[], copies: number): { readonly best: NestResult; readonly ms: number } {
  const pieces = shapes.map((silhouette, index) => ({
    index,
    silhouette,
    box: boundPoints(silhouette.flat()),
    drawing: 0,
  }));
  const layout = {
    isWhole: false,
    copies,
    quantities: {},
    turns: 'eighth',
    spacingMm: SPACING_MM,
    arrangement: 'packed',
  } as const;
  const order = { pieces, layout, sheet: SHEET, taken: [] };
  let best: NestResult | null = null;
  const started = performance.now();
  const isOver = () => performance.now() - started > NEST_MS;
  for (const better of arrangePieces(order, seededRandom(1), TRIES, isOver)) best = better;
  return { best: best as NestResult, ms: performance.now() - started };
}

function boxRoom() {
  return {
    width: SHEET.widthMm - 2 * SHEET.marginMm + SPACING_MM,
    height: SHEET.heightMm - 2 * SHEET.marginMm + SPACING_MM,
  };
}

interface PackedBox {
  readonly width: number;
  readonly height: number;
  x: number;
  y: number;
}

function packBoxes(boxes: readonly ReturnType<typeof boundPoints>[]): MaxRectsPacker<PackedBox> {
  const { width, height } = boxRoom();
  const packer = new MaxRectsPacker<PackedBox>(width, height, 0, {
    smart: false,
    pot: false,
    square: false,
    allowRotation: true,
  });
  // Handed over together, so that the packer may sort them as it likes.
  packer.addArray(
    boxes.map(({ minX, minY, maxX, maxY }) => ({
      x: 0,
      y: 0,
      width: maxX - minX + SPACING_MM,
      height: maxY - minY + SPACING_MM,
    })),
  );
  return packer;
}

/** As many boxes of one size as the packer gets on one sheet. */
function countBoxes(shape: Rings): number {
  const box = boundPoints(shape.flat());
  let most = 0;
  for (let count = 1; count < 500; count++) {
    const packer = packBoxes(Array.from({ length: count }, () => box));
    most = Math.max(most, packer.bins[0]?.rects.length ?? 0);
    if (packer.bins.length > 1 && count > most + 2) break;
  }
  return most;
}

function measurePerforation(): JobMeasures['perforation'] {
  const random = seededRandom(12);
  const contours = 2000;
  const rings = Array.from({ length: contours }, () => {
    const lobes = 3 + Math.floor(random() * 6);
    const radius = 8 + random() * 30;
    const ring = Array.from({ length: 180 }, (_, at) => {
      const angle = (at * Math.PI) / 90;
      const reach = radius * (1 + 0.25 * Math.cos(lobes * angle));
      return { x: reach * Math.cos(angle), y: reach * Math.sin(angle) };
    });
    return [...ring, ring[0] as PointMm];
  });
  const order = {
    cutLengthMm: 10,
    tabLengthMm: 1,
    cornerClearanceMm: 3,
    leading: 'bottom',
    thumb: null,
  } as const;
  let tabs = 0;
  const ms = time(() => {
    tabs = 0;
    for (const ring of rings) {
      const placed = placeTabs(ring, order);
      if (placed.kind !== 'tabs') continue;
      tabs += placed.tabs.length;
      cutTabs(ring, placed.tabs, placed.startMm, 0.5);
    }
  });
  return { contours, tabs, ms };
}
