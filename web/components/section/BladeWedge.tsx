import { LAYER_LEFT, LAYER_WIDTH } from '#web/components/section/layOutSection.ts';

interface Props {
  readonly tipY: number;
  readonly surfaceY: number;
  readonly angleDeg: number;
}

const BLADE_WIDTH = 56;
const HOLDER_WIDTH = 92;

/** A drag blade standing in the stack: its edge rises from the tip at the blade's own angle, its back is upright. */
export function BladeWedge({ tipY, surfaceY, angleDeg }: Props) {
  const tipX = LAYER_LEFT + LAYER_WIDTH / 2 - 12;
  const rise = BLADE_WIDTH * Math.tan((angleDeg * Math.PI) / 180);
  const top = 22;
  const shoulderY = Math.max(top, tipY - rise);
  const shoulderX = tipX + Math.min(BLADE_WIDTH, (tipY - top) / Math.tan((angleDeg * Math.PI) / 180));
  const left = tipX - 8;
  return (
    <g stroke="var(--color-ink)" strokeWidth="1.3" strokeLinejoin="round">
      <path d={`M${tipX} ${tipY}L${left} ${tipY - 11}V${top}H${shoulderX}V${shoulderY}Z`} fill="#c6ced6" />
      <path d={`M${tipX} ${tipY}L${shoulderX} ${shoulderY}`} strokeWidth="2.4" />
      <rect
        x={tipX + BLADE_WIDTH / 2 - HOLDER_WIDTH / 2 - 4}
        y="4"
        width={HOLDER_WIDTH}
        height={surfaceY - 12}
        rx="4"
        fill="#e7eaec"
      />
      <text
        x={tipX + BLADE_WIDTH / 2 - 4}
        y={(surfaceY - 8) / 2 + 4}
        textAnchor="middle"
        stroke="none"
        fill="var(--color-muted)"
        className="text-[13px]"
      >
        holder
      </text>
    </g>
  );
}
