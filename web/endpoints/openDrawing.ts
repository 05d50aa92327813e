import { createHash } from 'node:crypto';
import { LRUCache } from 'lru-cache';
import type { Drawing } from '#core/drawing/drawing.ts';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import type { Job } from '#core/job/job.ts';

const drawings = new LRUCache<string, Drawing>({ max: 12 });

/** The drawing of a job's file, read once and remembered. @throws AppError `badDrawing`, `tooLarge` */
export function openDrawing({ format, source }: Pick<Job, 'format' | 'source'>): Drawing {
  const key = createHash('sha256').update(format).update(source).digest('base64');
  const known = drawings.get(key);
  if (known) return known;
  const drawing = readDrawing(format, source);
  drawings.set(key, drawing);
  return drawing;
}
