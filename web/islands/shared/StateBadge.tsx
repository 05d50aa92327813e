import { Circle, CircleCheck, CircleDashed, CircleAlert } from 'lucide-react';
import type { SettingState } from '#core/setting/setting.ts';

const LOOKS = {
  predicted: { icon: CircleDashed, className: 'text-muted border-edge' },
  tried: { icon: Circle, className: 'text-straw-ink border-straw' },
  proven: { icon: CircleCheck, className: 'text-verdigris border-verdigris' },
  doubted: { icon: CircleAlert, className: 'text-ember border-ember' },
} as const;

/** The state of a setting: word and mark, so that colour is never alone. */
export function StateBadge({ state, detail }: { readonly state: SettingState; readonly detail?: string }) {
  const { icon: Icon, className } = LOOKS[state];
  return (
    <span
      className={`inline-flex items-center gap-1.5 rounded-full border px-2.5 py-0.5 text-sm whitespace-nowrap ${className}`}
    >
      <Icon size={15} aria-hidden />
      {state}
      {detail ? ` · ${detail}` : ''}
    </span>
  );
}
