import { writeRingsData } from '#core/drawing/writePathData.ts';
import { middleOf } from '#core/geometry/box.ts';
import type { ShownPiece } from '#core/job/describeLayout.ts';
import type { Placement } from '#core/sheet/layout.ts';

interface Props {
  readonly piece: ShownPiece | undefined;
  readonly placement: Placement;
}

/** What a piece covers, where it lies. */
export function PlacedShape({ piece, placement: { xMm, yMm, turnDeg } }: Props) {
  if (!piece) return null;
  const { x, y } = middleOf(piece.box);
  return (
    <path
      d={writeRingsData(piece.silhouette)}
      transform={`translate(${xMm} ${yMm}) rotate(${turnDeg}) translate(${-x} ${-y})`}
      vectorEffect="non-scaling-stroke"
    />
  );
}
