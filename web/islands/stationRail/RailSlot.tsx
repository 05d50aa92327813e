import { DropdownMenu } from 'radix-ui';
import { Check, ChevronUp } from 'lucide-react';
import type { ReactNode } from 'react';

interface Choice {
  readonly id: number;
  readonly name: string;
  readonly detail: string;
}

interface Props {
  readonly label: string;
  readonly value: string;
  readonly detail: ReactNode;
  readonly choices: readonly Choice[];
  readonly current: number | null;
  readonly onChoose: (id: number) => void;
  readonly more?: { readonly href: string; readonly words: string };
}

/** One thing at the station: shows what it is, opens what it could be. */
export function RailSlot({ label, value, detail, choices, current, onChoose, more }: Props) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="shrink-0 text-left px-4 py-1.5 border-r border-hairline hover:bg-sheet cursor-pointer min-w-32">
        <span className="flex items-center gap-1 text-sm text-muted">
          {label} <ChevronUp size={13} aria-hidden />
        </span>
        <span className="block font-semibold">{value}</span>
        <span className="block text-sm text-muted">{detail}</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          side="top"
          align="start"
          sideOffset={4}
          className="sheet z-30 min-w-64 p-1.5 shadow-lg"
        >
          {choices.map((choice) => (
            <DropdownMenu.Item
              key={choice.id}
              onSelect={() => onChoose(choice.id)}
              className="flex items-center gap-2 min-h-11 px-2.5 py-1 rounded cursor-pointer outline-none data-[highlighted]:bg-verdigris-pale"
            >
              <Check size={16} aria-hidden className={choice.id === current ? '' : 'invisible'} />
              <span>
                <span className="block font-semibold">{choice.name}</span>
                <span className="block text-sm text-muted">{choice.detail}</span>
              </span>
            </DropdownMenu.Item>
          ))}
          {more ? (
            <DropdownMenu.Item asChild>
              <a
                href={more.href}
                className="flex items-center min-h-11 px-2.5 pl-9 rounded outline-none data-[highlighted]:bg-verdigris-pale"
              >
                {more.words}
              </a>
            </DropdownMenu.Item>
          ) : null}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
