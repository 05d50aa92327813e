import { perforationOf } from '#core/setting/derivePerforated.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { Length } from '#web/islands/shared/Length.tsx';
import type { JobReply } from '#web/schemas/job.ts';
import type { PlanReply } from '#web/schemas/plan.ts';
import { say, sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly job: JobReply;
  readonly plan: PlanReply;
  readonly holding: NonNullable<PlanReply['holding']>;
  readonly onChange: (change: JobChange) => void;
}

/** Tab and cut length, what they bear, and what operators would report of them. */
export function TabPanel({ job, plan, holding, onChange }: Props) {
  const values = plan.passes.find(({ role }) => role === 'perforated')?.values;
  const perforation = plan.passes.find(({ role }) => role === 'perforated')?.perforation;
  const { tabLengthMm: tab, cutLengthMm: cut } = perforationOf(values ?? {});
  const set = (change: Partial<JobReply['passes']>) => onChange({ passes: { ...job.passes, ...change } });
  return (
    <section aria-label="Tabs" className="border-t border-hairline mt-4 pt-3">
      <h2>Will the pieces stay in, and come out?</h2>
      <div className="grid grid-cols-2 gap-3 mt-2">
        <Length label="Cut length" mm={cut} onChange={(cutLengthMm) => set({ cutLengthMm })} />
        <Length label="Tab length" mm={tab} onChange={(tabLengthMm) => set({ tabLengthMm })} />
      </div>
      <Reports holding={holding} />
      <p className="text-sm text-muted mt-2">
        {holding.judged === 0
          ? 'Nobody has judged a piece of this sheet yet: cut one real piece first.'
          : `Learned from ${holding.judged} judged ${holding.judged === 1 ? 'piece' : 'pieces'}.`}{' '}
        The weakest piece holds {sayNumber(holding.holdN, 1)} N against{' '}
        {sayNumber(holding.dragN + holding.jerkN, 1)} N of drag and jerks (hold index{' '}
        {sayNumber(holding.holdIndex, 1)}); a thumb tears it out with {sayNumber(holding.releaseN, 1)} N (pop
        index {sayNumber(holding.popIndex, 1)}; 1 or more comes out).
      </p>
      {Math.abs(holding.proposedTabMm - tab) >= 0.1 ? (
        <button
          type="button"
          className="button mt-2"
          onClick={() => set({ tabLengthMm: holding.proposedTabMm })}
        >
          Take tabs of {say(`${holding.proposedTabMm} mm`)}
        </button>
      ) : null}{' '}
      <a href="/test-cuts?operation=perforated" className="text-sm">
        judge a piece
      </a>
      {(perforation?.kissOnly.length ?? 0) > 0 ? (
        <p className="note mt-2" data-tone="careful">
          {perforation?.kissOnly.length} too small for tabs and only kissed:{' '}
          {say(perforation?.kissOnly[0]?.reason ?? '')}.
        </p>
      ) : null}
    </section>
  );
}

/** How likely each report of an operator is. */
function Reports({ holding }: Pick<Props, 'holding'>) {
  return (
    <ul className="grid grid-cols-5 gap-1 mt-3" aria-label="What you would see">
      {holding.steps.map((words, index) => {
        const chance = holding.chances[index] ?? 0;
        return (
          <li key={words} className="text-center text-sm">
            <span className="block h-14 relative border-b border-edge" aria-hidden>
              <span
                className={`absolute bottom-0 inset-x-1 ${index === 2 ? 'bg-verdigris' : 'bg-feather'}`}
                style={{ height: `${Math.max(2, chance * 100)}%` }}
              />
            </span>
            {words} <span className="figure block text-muted">{Math.round(chance * 100)} %</span>
          </li>
        );
      })}
    </ul>
  );
}
