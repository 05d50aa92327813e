import { DropdownMenu } from 'radix-ui';
import { Check, ChevronUp } from 'lucide-react';
import type { ReactNode } from 'react';

export interface Choice {
  readonly id: number;
  readonly name: string;
  readonly detail: string;
}

/** Things of one kind to choose from, with the one that is there. */
export interface ChoiceGroup {
  readonly label?: string;
  readonly choices: readonly Choice[];
  readonly current: number | null;
  readonly onChoose: (id: number) => void;
}

/** From which width of the window on a slot is shown without asking for more. */
export type From = 'phone' | 'tablet' | 'desk';

const HIDDEN: Readonly<Record<From, string>> = {
  phone: '',
  tablet: 'max-sm:hidden',
  desk: 'max-lg:hidden',
};

/** How a slot of the rail stands: never wider than its share, so that all of them fit. */
export function slotClass(from: From, isOpen: boolean): string {
  return `min-w-0 text-left px-3 py-1.5 border-r border-hairline ${isOpen ? '' : HIDDEN[from]}`;
}

interface Props {
  readonly label: string;
  readonly value: string;
  readonly detail: ReactNode;
  readonly groups: readonly ChoiceGroup[];
  readonly more?: { readonly href: string; readonly words: string };
  readonly className: string;
}

/** One thing at the station: shows what it is, opens what it could be. */
export function RailSlot({ label, value, detail, groups, more, className }: Props) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        className={`hover:bg-sheet cursor-pointer ${className}`}
        title={typeof detail === 'string' ? `${value} · ${detail}` : value}
      >
        <span className="flex items-center gap-1 text-sm text-muted">
          {label} <ChevronUp size={13} aria-hidden />
        </span>
        <span className="block font-semibold truncate">{value}</span>
        <span className="block text-sm text-muted truncate">{detail}</span>
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          side="top"
          align="start"
          sideOffset={4}
          className="sheet z-30 min-w-64 max-h-(--radix-dropdown-menu-content-available-height) overflow-y-auto p-1.5 shadow-lg"
        >
          {groups.map((group) => (
            <DropdownMenu.Group key={group.label ?? ''} aria-label={group.label}>
              {group.label ? (
                <DropdownMenu.Label className="px-2.5 pt-1 text-sm text-muted">
                  {group.label}
                </DropdownMenu.Label>
              ) : null}
              {group.choices.map((choice) => (
                <DropdownMenu.Item
                  key={choice.id}
                  onSelect={() => group.onChoose(choice.id)}
                  className="flex items-center gap-2 min-h-11 px-2.5 py-1 rounded cursor-pointer outline-none data-[highlighted]:bg-verdigris-pale"
                >
                  <Check size={16} aria-hidden className={choice.id === group.current ? '' : 'invisible'} />
                  <span>
                    <span className="block font-semibold">{choice.name}</span>
                    <span className="block text-sm text-muted">{choice.detail}</span>
                  </span>
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Group>
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
