import type { DepthGrade } from '#core/stack/depthGrade.ts';

/** How far down the cut goes in the picture, in px, per grade. Face from 8 to 24, liner from 24 to 42, mat below. */
const DEPTHS: Readonly<Record<DepthGrade, number>> = {
  0: 8.5,
  1: 15,
  2: 22,
  3: 24,
  4: 28,
  5: 34,
  6: 40,
  7: 42,
  8: 48,
};

/** A little section of what a grade looks like: the cut, and whether the piece lifts. */
export function GradePicture({
  grade,
  isLayered,
}: {
  readonly grade: DepthGrade;
  readonly isLayered: boolean;
}) {
  const depth = isLayered ? DEPTHS[grade] : grade <= 2 ? 8 + (DEPTHS[grade] - 8) * 2.1 : DEPTHS[grade];
  const isLifted = grade >= 3 && isLayered;
  const isFree = grade >= 7;
  const tilt = isFree || isLifted ? -9 : grade === 2 ? -4 : 0;
  return (
    <svg viewBox="0 0 72 54" className="paper rounded h-11 w-auto shrink-0" aria-hidden>
      <rect x="2" y="42" width="68" height="10" fill="#e3e7e6" stroke="#aeb8b7" />
      {isLayered ? (
        <>
          <Slab y={24} height={18} fill="#fbfaf6" isCut={isFree} tilt={isFree ? -9 : 0} />
          <path d="M6 40l12-14M18 40l12-14" stroke="#b3ab98" />
          <Slab y={8} height={16} fill="#f3c9b4" isCut={grade >= 2} tilt={tilt} pivotY={isFree ? 42 : 24} />
        </>
      ) : (
        <Slab y={8} height={34} fill="#e9e4d6" isCut={grade >= 2} tilt={tilt} />
      )}
      <path d={`M33 2H39L36 ${depth}Z`} fill="var(--color-ink)" />
      {grade === 2 && (
        <path d={`M36 ${depth}v4`} stroke="var(--color-ember)" strokeWidth="2" strokeDasharray="2 1.5" />
      )}
    </svg>
  );
}

interface SlabProps {
  readonly y: number;
  readonly height: number;
  readonly fill: string;
  /** Whole where nothing parts it; else two halves, the right one lifted by the tilt. */
  readonly isCut: boolean;
  readonly tilt: number;
  readonly pivotY?: number;
}

function Slab({ y, height, fill, isCut, tilt, pivotY = 42 }: SlabProps) {
  const look = { y, height, fill, stroke: 'var(--color-ink)' };
  if (!isCut) return <rect x="2" width="68" {...look} />;
  return (
    <>
      <rect x="2" width="34" {...look} />
      <rect x="36" width="34" {...look} transform={`rotate(${tilt} 70 ${pivotY})`} />
    </>
  );
}
