import { LRUCache } from 'lru-cache';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import type { Drawing } from '#core/drawing/drawing.ts';
import type { Artwork } from '#core/job/joinDrawings.ts';

/** Each thread remembers the last drawings it read, as many as their files are not too long for, in characters. */
const drawings = new LRUCache<string, Drawing>({
  maxSize: 200_000_000,
  sizeCalculation: (_, key) => key.length,
});

/** The drawing of a job's file. @throws AppError `badDrawing`, `tooLarge` */
export function openDrawing({ format, source }: Artwork): Drawing {
  const key = `${format}\0${source}`;
  const known = drawings.get(key);
  if (known) return known;
  const drawing = readDrawing(format, source);
  drawings.set(key, drawing);
  return drawing;
}
