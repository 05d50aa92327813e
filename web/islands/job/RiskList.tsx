import { RISK_WORDS } from '#core/passes/estimateRisks.ts';
import type { PlanReply } from '#web/schemas/plan.ts';
import { say } from '#web/islands/shared/units.ts';

/** What can go wrong on a sheet, each a number with its causes. */
export function RiskList({ risks }: { readonly risks: PlanReply['risks'] }) {
  return (
    <section aria-label="Risks" className="border-t border-hairline mt-4 pt-3">
      <h2>What can go wrong, in 100 sheets</h2>
      <ul className="mt-1 grid gap-1.5">
        {risks.map(({ kind, chance, causes }) => (
          <li key={kind} className="grid grid-cols-[8rem_3.5rem_1fr] gap-2 items-baseline">
            <span>{RISK_WORDS[kind]}</span>
            <span
              className={`figure text-right font-semibold ${chance >= 0.1 ? 'text-ember' : chance >= 0.03 ? 'text-straw' : ''}`}
            >
              {chance > 0 && chance < 0.005 ? '< 1' : Math.round(chance * 100)}
            </span>
            <span className="text-sm text-muted">
              {causes.map(({ words }) => say(words)).join('; ') || 'nothing seen'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
