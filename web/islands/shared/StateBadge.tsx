import { Circle, CircleCheck, CircleDashed, CircleAlert } from 'lucide-react';
import type { SettingState } from '#core/setting/setting.ts';
import { Term } from '#web/islands/shared/Term.tsx';

const LOOKS = {
  predicted: { icon: CircleDashed, className: 'text-muted border-edge' },
  tried: { icon: Circle, className: 'text-straw-ink border-straw' },
  proven: { icon: CircleCheck, className: 'text-verdigris border-verdigris' },
  doubted: { icon: CircleAlert, className: 'text-ember border-ember' },
} as const;

interface Props {
  readonly state: SettingState;
  readonly detail?: string;
  /** Whether a tap on it says what it means. */
  readonly isExplained?: boolean;
}

/** The state of a setting: word and mark, so that colour is never alone. */
export function StateBadge({ state, detail, isExplained = false }: Props) {
  const { icon: Icon, className } = LOOKS[state];
  return (
    <span
      className={`inline-flex items-center gap-1.5 rounded-full border px-2.5 py-0.5 text-sm whitespace-nowrap ${className}`}
    >
      <Icon size={15} aria-hidden />
      {isExplained ? <Term id={state}>{state}</Term> : state}
      {detail ? ` · ${detail}` : ''}
    </span>
  );
}
