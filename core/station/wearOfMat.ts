import type { Mat } from '#core/station/station.ts';
import type { MatWear } from '#core/wear/tackIndex.ts';

const DAY_MS = 86_400_000;

/**
 * What tells how well a mat holds today: what was counted of it since it was new, re-stuck and washed.
 *
 * @example wearOfMat({ ...mat, uses: 30, usesAtRestick: 10 }, new Date('2027-01-01')).uses // 20
 */
export function wearOfMat(
  mat: Pick<Mat, 'tack' | 'uses' | 'usesAtRestick' | 'usesAtCleaning' | 'firstUsedAt' | 'feltShare'>,
  now: Date,
): MatWear {
  return {
    tack: mat.tack,
    uses: mat.uses - mat.usesAtRestick,
    ageDays: mat.firstUsedAt ? (now.getTime() - Date.parse(mat.firstUsedAt)) / DAY_MS : 0,
    usesSinceCleaned: mat.uses - mat.usesAtCleaning,
    feltShare: mat.feltShare,
  };
}
