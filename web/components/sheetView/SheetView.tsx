import type { BoxMm } from '#core/geometry/box.ts';
import type { KeyboardEventHandler, PointerEventHandler, ReactNode } from 'react';

interface Props {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly marginMm: number;
  readonly label: string;
  /** What is shown besides, where something lies beyond it. */
  readonly around?: BoxMm;
  readonly children: ReactNode;
  /** What a pointer does on it, where lines can be chosen. */
  readonly pointer?:
    | Readonly<Record<'onPointerDown' | 'onPointerMove' | 'onPointerUp', PointerEventHandler<SVGSVGElement>>>
    | undefined;
  /** What keys do on it, where something can be moved. */
  readonly onKeyDown?: KeyboardEventHandler<SVGSVGElement> | undefined;
}

/** A sheet from above at any size, in mm, with the area the machine reaches. */
export function SheetView({
  widthMm,
  heightMm,
  marginMm,
  label,
  around,
  children,
  pointer,
  onKeyDown,
}: Props) {
  const { minX, minY, maxX, maxY } = around ?? { minX: 0, minY: 0, maxX: widthMm, maxY: heightMm };
  const rim = Math.max(maxX - minX, maxY - minY) * 0.015;
  const box = `${minX - rim} ${minY - rim} ${maxX - minX + 2 * rim} ${maxY - minY + 2 * rim}`;
  return (
    <svg
      viewBox={box}
      role="img"
      aria-label={label}
      className={`paper block w-full max-h-[64vh] ${pointer ? 'cursor-crosshair touch-none' : ''}`}
      tabIndex={onKeyDown ? 0 : undefined}
      onKeyDown={onKeyDown}
      {...pointer}
    >
      <rect
        width={widthMm}
        height={heightMm}
        fill="var(--color-sheet)"
        stroke="var(--color-edge)"
        vectorEffect="non-scaling-stroke"
      />
      {marginMm > 0 ? (
        <rect
          x={marginMm}
          y={marginMm}
          width={Math.max(0, widthMm - 2 * marginMm)}
          height={Math.max(0, heightMm - 2 * marginMm)}
          fill="none"
          stroke="var(--color-hairline)"
          strokeDasharray="4 4"
          vectorEffect="non-scaling-stroke"
        />
      ) : null}
      {children}
    </svg>
  );
}
