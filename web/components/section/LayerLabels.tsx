import { formatCaliper, type UnitSystem } from '#core/units/length.ts';
import {
  LAYER_LEFT,
  LAYER_WIDTH,
  MAT_HEIGHT,
  SECTION_WIDTH,
  type SectionLayout,
} from '#web/components/section/layOutSection.ts';

interface Props {
  readonly layout: SectionLayout;
  readonly system: UnitSystem;
  readonly matName: string;
}

/** Names and calipers beside the layers, with a leader where a label had to move. */
export function LayerLabels({ layout, system, matName }: Props) {
  const right = LAYER_LEFT + LAYER_WIDTH;
  const lastLabel = layout.layers.at(-1)?.labelY ?? 0;
  const matY = Math.max(layout.bottomY + MAT_HEIGHT / 2, lastLabel + 19);
  return (
    <g className="text-[14px]">
      {layout.layers.map(({ layer, y, height, labelY }, index) => {
        const { figure, unit } = formatCaliper(layer.caliperUm, system);
        return (
          <g key={index}>
            <path
              d={`M${right + 1} ${y + height / 2}L${right + 9} ${labelY}`}
              stroke="var(--color-edge)"
              fill="none"
            />
            <text x={right + 12} y={labelY + 4} fill="var(--color-ink)">
              {layer.role}
              {layer.isMeasured ? '' : ' ~'}
            </text>
            <text
              x={SECTION_WIDTH - 2}
              y={labelY + 4}
              textAnchor="end"
              className="figure"
              fill="var(--color-ink)"
            >
              {figure} {unit}
            </text>
          </g>
        );
      })}
      <text x={right + 12} y={matY + 4} fill="var(--color-muted)">
        {matName}
      </text>
    </g>
  );
}
