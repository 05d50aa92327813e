import type { ShownLine } from '#core/job/describeLayout.ts';

/** Lines that are chosen, drawn over again in a broad pale band. */
export function ChosenLines({
  lines,
  chosen,
}: {
  readonly lines: readonly ShownLine[];
  readonly chosen: readonly number[];
}) {
  if (chosen.length === 0) return null;
  const wanted = new Set(chosen);
  const data = lines.filter(({ sourceId }) => wanted.has(sourceId)).map((line) => line.data);
  return (
    <path
      d={data.join('')}
      fill="none"
      stroke="var(--color-straw)"
      strokeOpacity="0.75"
      strokeWidth="7"
      strokeLinejoin="round"
      vectorEffect="non-scaling-stroke"
    />
  );
}
