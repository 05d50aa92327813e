import { writeRingsData } from '#core/drawing/writePathData.ts';
import type { BoxMm } from '#core/geometry/box.ts';
import type { ShownLayout } from '#core/job/describeLayout.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly layout: ShownLayout;
  readonly sheet: Sheet;
  readonly isRemnantShown: boolean;
}

/** Registration marks with what they need clear, the corner kept for a test cut, and what is left of the sheet. */
export function SheetMarks({ layout, isRemnantShown }: Props) {
  const { marks, printArea, testCorner, remnant } = layout;
  return (
    <g>
      {marks.map(({ keepOut, outline, name }) => (
        <g key={name}>
          <Area box={keepOut} fill="var(--color-straw-pale)" stroke="none" />
          <path d={writeRingsData([outline])} fill="var(--color-ink)" />
        </g>
      ))}
      {printArea ? <Area box={printArea} fill="none" stroke="var(--color-straw)" /> : null}
      {isRemnantShown && remnant ? (
        <Area box={remnant} fill="none" stroke="var(--color-feather)" words="left over" />
      ) : null}
      {testCorner ? (
        <Area
          box={testCorner}
          fill="var(--color-verdigris-pale)"
          stroke="var(--color-verdigris)"
          words="test cut"
        />
      ) : null}
    </g>
  );
}

interface AreaProps {
  readonly box: BoxMm;
  readonly fill: string;
  readonly stroke: string;
  readonly words?: string;
}

function Area({ box, fill, stroke, words }: AreaProps) {
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  return (
    <g>
      <rect
        x={box.minX}
        y={box.minY}
        width={width}
        height={height}
        fill={fill}
        stroke={stroke}
        strokeDasharray="6 4"
        vectorEffect="non-scaling-stroke"
      />
      {words ? (
        <text
          x={box.minX + width / 2}
          y={box.minY + height / 2}
          textAnchor="middle"
          dominantBaseline="middle"
          fontSize={Math.min(7, height / 3)}
          fill="var(--color-muted)"
        >
          {say(words)}
        </text>
      ) : null}
    </g>
  );
}
