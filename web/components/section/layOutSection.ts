import type { Layer, Stack } from '#core/stack/layer.ts';

export const SECTION_WIDTH = 370;
export const LAYER_LEFT = 78;
export const LAYER_WIDTH = 152;
export const MAT_HEIGHT = 42;

const STACK_HEIGHT = 216;
const TOP_Y = 66;
const LABEL_SPACING = 19;

/** A layer at its place in the drawing, in its own px. */
export interface PlacedLayer {
  readonly layer: Layer;
  readonly y: number;
  readonly height: number;
  readonly labelY: number;
}

export interface SectionLayout {
  readonly layers: readonly PlacedLayer[];
  readonly topY: number;
  readonly bottomY: number;
  readonly pxPerUm: number;
}

/** Places the layers to one scale and their labels so far apart that they can be read. */
export function layOutSection(stack: Stack): SectionLayout {
  const totalUm = stack.reduce((sum, layer) => sum + layer.caliperUm, 0);
  const pxPerUm = STACK_HEIGHT / Math.max(1, totalUm);
  const layers: PlacedLayer[] = [];
  let y = TOP_Y;
  let lastLabel = -Infinity;
  for (const layer of stack) {
    const height = layer.caliperUm * pxPerUm;
    const labelY = Math.max(y + height / 2, lastLabel + LABEL_SPACING);
    layers.push({ layer, y, height, labelY });
    lastLabel = labelY;
    y += height;
  }
  return { layers, topY: TOP_Y, bottomY: y, pxPerUm };
}
