import { memo } from 'react';
import { ROLES } from '#core/drawing/lineRoles.ts';
import type { ShownLine } from '#core/job/describeLayout.ts';
import type { DrawnImage } from '#core/drawing/drawing.ts';
import { ROLE_STROKES } from '#web/components/RoleLine.tsx';

interface Props {
  readonly lines: readonly ShownLine[];
  readonly images: readonly DrawnImage[];
  /** Radius of the circles on kiss lines, in mm. */
  readonly dotMm: number;
  readonly isFaint?: boolean;
  /** Art in its own colours instead of a pale fill. */
  readonly isPrinted?: boolean;
}

/** Lines in the style of their role, all of one role in one path: art below, then in the order in which they are cut. */
export const RoledLines = memo(function RoledLines({ lines, images, dotMm, isFaint, isPrinted }: Props) {
  const dataOf = (role: (typeof ROLES)[number] | null) =>
    lines
      .filter((line) => line.role === role)
      .map(({ data }) => data)
      .join('');
  return (
    <g opacity={isFaint ? 0.35 : 1} strokeLinejoin="round">
      <Pictures images={images} opacity={isPrinted ? 1 : 0.5} />
      {isPrinted ? <PrintedArt lines={lines} /> : <path d={dataOf('art')} fill="var(--color-art)" />}
      {ROLES.filter((role) => role !== 'art').map((role) => {
        const { stroke, width, dash } = ROLE_STROKES[role];
        return (
          <path
            key={role}
            d={dataOf(role)}
            fill="none"
            stroke={stroke}
            strokeWidth={role === 'crease' ? 3 : width}
            strokeDasharray={dash}
            strokeLinecap={role === 'score' ? 'round' : 'butt'}
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
      <Overlay data={dataOf('crease')} stroke="var(--color-sheet)" width={1.2} />
      <Overlay data={dataOf(null)} stroke="var(--color-ember)" width={2} dash="2 3" />
      <KissDots lines={lines} dotMm={dotMm} />
    </g>
  );
});

function Overlay({
  data,
  stroke,
  width,
  dash,
}: {
  readonly data: string;
  readonly stroke: string;
  readonly width: number;
  readonly dash?: string;
}) {
  return (
    <path
      d={data}
      fill="none"
      stroke={stroke}
      strokeWidth={width}
      strokeDasharray={dash}
      vectorEffect="non-scaling-stroke"
    />
  );
}

function Pictures({ images, opacity }: { readonly images: readonly DrawnImage[]; readonly opacity: number }) {
  return images.map(({ data, toMm }, index) => (
    <image
      key={index}
      href={data}
      width="1"
      height="1"
      preserveAspectRatio="none"
      transform={`matrix(${toMm.join(' ')})`}
      opacity={opacity}
    />
  ));
}

function KissDots({ lines, dotMm }: Pick<Props, 'lines' | 'dotMm'>) {
  return (
    <g stroke={ROLE_STROKES.kiss.stroke} fill="var(--color-sheet)">
      {lines.flatMap((line) =>
        line.dots.map((dot, index) => (
          <circle
            key={`${line.id}/${index}`}
            cx={dot.x}
            cy={dot.y}
            r={dotMm}
            strokeWidth="1.2"
            vectorEffect="non-scaling-stroke"
          />
        )),
      )}
    </g>
  );
}

/** Art in its colours, shape by shape, so that holes stay holes. */
function PrintedArt({ lines }: Pick<Props, 'lines'>) {
  const shapes = new Map<string, { readonly fill: string; data: string }>();
  for (const { role, fill, shapeKey, data } of lines) {
    if (role !== 'art' || !fill) continue;
    const shape = shapes.get(shapeKey);
    if (shape) shape.data += data;
    else shapes.set(shapeKey, { fill, data });
  }
  return [...shapes].map(([key, { fill, data }]) => (
    <path key={key} d={data} fill={fill} fillRule="evenodd" />
  ));
}
