import { useId } from 'react';
import type { MachineKind } from '#core/station/machine.ts';
import type { Operation } from '#core/stack/operation.ts';
import type { Stack } from '#core/stack/layer.ts';
import type { TipDepth } from '#core/threshold/estimateTipDepth.ts';
import { formatCaliper, type UnitSystem } from '#core/units/length.ts';
import { BladeWedge } from '#web/components/section/BladeWedge.tsx';
import { LayerLabels } from '#web/components/section/LayerLabels.tsx';
import { LayerPatterns } from '#web/components/section/LayerPatterns.tsx';
import {
  layOutSection,
  LAYER_LEFT,
  LAYER_WIDTH,
  MAT_HEIGHT,
  SECTION_WIDTH,
} from '#web/components/section/layOutSection.ts';

interface Props {
  readonly stack: Stack;
  readonly faceColour: string;
  readonly system: UnitSystem;
  /** What the sheet lies on; `null` where no machine is chosen. */
  readonly on: MachineKind | null;
  /** Where the tip probably ends, with the blade that does it; `null` draws the stack alone. */
  readonly cut: { readonly tip: TipDepth; readonly angleDeg: number } | null;
}

/** What lies under the sheet of each kind of machine. */
const UNDER: Readonly<Record<MachineKind, string>> = {
  matFed: 'mat',
  rollFed: 'cutting strip',
  flatbed: 'bed',
};

/** What a section shows, by operation. */
export const SECTION_WORDS: Readonly<Record<Operation, string>> = {
  kiss: 'kissed',
  through: 'cut through',
  perforated: 'before it is perforated',
  score: 'before it is scored',
  crease: 'before it is creased',
};

/** The section: the stack to scale with its engineering hatches, the blade tip in it, and a band where it may end. */
export function Section({ stack, faceColour, system, on, cut }: Props) {
  const id = useId().replace(/[^a-z0-9]/gi, '');
  const layout = layOutSection(stack);
  const { layers, topY, bottomY, pxPerUm } = layout;
  const height = bottomY + MAT_HEIGHT + 8;
  const depthY = (um: number) => Math.min(topY + um * pxPerUm, bottomY + MAT_HEIGHT);
  return (
    <svg
      viewBox={`-4 0 ${SECTION_WIDTH + 12} ${height}`}
      className="paper rounded block w-full max-w-[420px] mx-auto"
      role="img"
      aria-labelledby={`${id}t`}
    >
      <title id={`${id}t`}>{describe(stack, cut, system)}</title>
      <LayerPatterns id={id} faceColour={faceColour} />
      {layers.map(({ layer, y, height: tall }, index) => (
        <rect
          key={index}
          x={LAYER_LEFT}
          y={y}
          width={LAYER_WIDTH}
          height={tall}
          fill={layer.role === 'ink' ? '#33475a' : `url(#${id}${layer.role})`}
          stroke="var(--color-ink)"
          strokeWidth="1"
        />
      ))}
      <rect
        x={LAYER_LEFT}
        y={bottomY}
        width={LAYER_WIDTH}
        height={MAT_HEIGHT}
        fill={`url(#${id}mat)`}
        stroke="var(--color-edge)"
      />
      {cut && (
        <>
          <rect
            x={LAYER_LEFT}
            y={depthY(cut.tip.lowUm)}
            width={LAYER_WIDTH}
            height={Math.max(3, depthY(cut.tip.highUm) - depthY(cut.tip.lowUm))}
            fill={`url(#${id}band)`}
          />
          <BladeWedge tipY={depthY(cut.tip.middleUm)} surfaceY={topY} angleDeg={cut.angleDeg} />
          <TipLabel y={depthY(cut.tip.middleUm)} tip={cut.tip} system={system} />
        </>
      )}
      <LayerLabels layout={layout} system={system} matName={on === null ? 'mat or strip' : UNDER[on]} />
    </svg>
  );
}

function TipLabel({
  y,
  tip,
  system,
}: {
  readonly y: number;
  readonly tip: TipDepth;
  readonly system: UnitSystem;
}) {
  const { figure, unit } = formatCaliper(tip.middleUm, system);
  const spread = formatCaliper((tip.highUm - tip.lowUm) / 2, system);
  return (
    <g className="figure text-[13.5px]" textAnchor="end">
      <line
        x1={LAYER_LEFT - 8}
        x2={LAYER_LEFT + LAYER_WIDTH}
        y1={y}
        y2={y}
        stroke="var(--color-ink)"
        strokeDasharray="4 3"
      />
      <text x={LAYER_LEFT - 12} y={y - 1} fill="var(--color-ink)" className="font-semibold">
        {figure} {unit}
      </text>
      <text x={LAYER_LEFT - 12} y={y + 13} fill="var(--color-muted)">
        ±{spread.figure}
      </text>
    </g>
  );
}

function describe(stack: Stack, cut: Props['cut'], system: UnitSystem): string {
  const words = (um: number) => {
    const { figure, unit } = formatCaliper(um, system);
    return `${figure} ${unit}`;
  };
  const layers = stack.map((layer) => `${layer.role} ${words(layer.caliperUm)}`).join(', ');
  const tip = cut ? ` The tip probably ends ${words(cut.tip.middleUm)} below the surface.` : '';
  return `Section from the top: ${layers}.${tip}`;
}
