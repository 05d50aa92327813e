import { RoleSample } from '#web/components/RoleLine.tsx';
import { OPERATION_KEYS } from '#web/components/operationKeys.ts';
import { type Operation, OPERATION_WORDS } from '#core/stack/operation.ts';

/** What test cuts can find: a force by depth, tabs by how a piece held, a crease by how it folded. */
export type TestQuantity = Operation;

interface Props {
  readonly quantities: readonly TestQuantity[];
  readonly now: TestQuantity;
}

/** What to find, each a page of its own. */
export function QuantityTabs({ quantities, now }: Props) {
  return (
    <nav aria-label="Operation" className="flex flex-wrap gap-2">
      {quantities.map((one) => (
        <a
          key={one}
          data-keys={OPERATION_KEYS[one]}
          href={`/test-cuts?operation=${one}`}
          aria-current={one === now ? 'page' : undefined}
          className="button px-2.5 sm:px-3 aria-[current]:border-verdigris aria-[current]:shadow-[inset_0_-4px_0_var(--color-verdigris)]"
        >
          <RoleSample role={one} /> {one === 'perforated' ? 'Tabs' : OPERATION_WORDS[one]}
        </a>
      ))}
    </nav>
  );
}
