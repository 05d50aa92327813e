import { memo, useId } from 'react';
import { ROLES } from '#core/drawing/roles/lineRoles.ts';
import type { ShownLine } from '#core/job/describeLayout.ts';
import type { DrawnImage } from '#core/drawing/drawing.ts';
import { ROLE_STROKES } from '#web/components/RoleLine.tsx';

interface Props {
  readonly lines: readonly ShownLine[];
  readonly images: readonly DrawnImage[];
  /** Pictures and art drawn from files, in place of the pictures alone. */
  readonly art: readonly DrawnImage[] | null;
  /** Radius of the circles on kiss lines, in mm. */
  readonly dotMm: number;
  readonly isFaint?: boolean;
  /** Art in its own colours instead of a pale fill. */
  readonly isPrinted?: boolean;
}

/** Lines in the style of their role, all of one role in one path: art below, then in the order in which they are cut. */
export const RoledLines = memo(function RoledLines(props: Props) {
  const { lines, images, art, dotMm, isFaint, isPrinted } = props;
  const drawn = lines.filter(({ isInPicture, isBehind }) => !isInPicture && !isBehind);
  const dataOf = (role: (typeof ROLES)[number] | null) =>
    lines
      .filter((line) => line.role === role)
      .map(({ data }) => data)
      .join('');
  return (
    <g opacity={isFaint ? 0.35 : 1} strokeLinejoin="round">
      <g opacity={isPrinted ? 1 : 0.5}>
        <PrintedArt lines={lines.filter(({ isBehind }) => isBehind)} />
      </g>
      <Pictures images={art ?? images} opacity={isPrinted ? 1 : 0.5} />
      {isPrinted ? <PrintedArt lines={drawn} /> : <PaleArt lines={drawn} />}
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

/** Each picture stands in the page once, however often it is drawn. */
function Pictures({ images, opacity }: { readonly images: readonly DrawnImage[]; readonly opacity: number }) {
  const own = useId();
  const ids = new Map<string, string>();
  for (const { data } of images) if (!ids.has(data)) ids.set(data, `${own}-${ids.size}`);
  return (
    <>
      <defs>
        {[...ids].map(([data, id]) => (
          <image key={id} id={id} href={data} width="1" height="1" preserveAspectRatio="none" />
        ))}
      </defs>
      {images.map(({ data, toMm }, index) => (
        <use
          key={index}
          href={`#${ids.get(data)}`}
          transform={`matrix(${toMm.join(' ')})`}
          opacity={opacity}
        />
      ))}
    </>
  );
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
  const shapes = new Map<string, ShownLine & { data: string }>();
  for (const line of lines) {
    if (line.role !== 'art') continue;
    const shape = shapes.get(line.shapeKey);
    if (shape) shape.data += line.data;
    else shapes.set(line.shapeKey, { ...line });
  }
  return [...shapes].map(([key, { data, fill, stroke, strokeWidthMm, paint }]) => (
    <path
      key={key}
      d={data}
      fill={fill ?? 'none'}
      fillRule={paint?.isEvenOdd === false ? 'nonzero' : 'evenodd'}
      stroke={stroke ?? 'none'}
      strokeWidth={strokeWidthMm ?? 0.25}
      strokeLinecap={paint?.cap ?? 'round'}
      strokeLinejoin={paint?.join ?? 'round'}
      strokeMiterlimit={paint?.miterLimit}
      strokeDasharray={paint?.dashMm.join(' ')}
      strokeDashoffset={paint?.dashOffsetMm}
    />
  ));
}

/** Art as a pale shape: what it is filled or drawn with, so that only its place is seen. */
function PaleArt({ lines }: Pick<Props, 'lines'>) {
  const art = lines.filter(({ role }) => role === 'art');
  const dataOf = (isFilled: boolean) =>
    art
      .filter(({ fill }) => (fill !== null) === isFilled)
      .map(({ data }) => data)
      .join('');
  const widthMm = art.reduce((most, { strokeWidthMm }) => Math.max(most, strokeWidthMm ?? 0), 0.3);
  return (
    <>
      <path d={dataOf(true)} fill="var(--color-art)" />
      <path
        d={dataOf(false)}
        fill="none"
        stroke="var(--color-art)"
        strokeWidth={widthMm}
        strokeLinecap="round"
      />
    </>
  );
}
