import { Search } from 'lucide-react';
import { FAMILY_NAMES } from '#core/stack/layer.ts';
import { nameCondition } from '#core/stack/material.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { useMaterialSearch } from '#web/islands/materialSearch/useMaterialSearch.ts';

/** Finds a material by anything printed on its pack and loads it at this station. `/` comes here from anywhere. */
export function MaterialSearch({ machineId }: { readonly machineId: number | null }) {
  const search = useMaterialSearch(machineId);
  return (
    <div className="relative w-44 sm:w-72" onBlur={search.onBlur}>
      <label htmlFor="material-search" className="sr-only">
        Find a material to load
      </label>
      <Search size={17} aria-hidden className="absolute left-3 top-3.5 text-muted" />
      <input
        id="material-search"
        className="field pl-9 pr-9"
        placeholder="Material, maker, colour"
        autoComplete="off"
        role="combobox"
        aria-expanded={search.isOpen}
        aria-controls="material-search-list"
        aria-activedescendant={
          search.isOpen && search.found.length > 0 ? `found-${search.active}` : undefined
        }
        value={search.text}
        onChange={(event) => search.type(event.target.value)}
        onFocus={search.open}
        onKeyDown={search.onKeyDown}
      />
      <kbd className="absolute right-2.5 top-2.5 border border-hairline rounded px-1.5 text-sm text-muted bg-ground">
        /
      </kbd>
      {search.isOpen ? <Found search={search} /> : null}
    </div>
  );
}

function Found({ search }: { readonly search: ReturnType<typeof useMaterialSearch> }) {
  return (
    <div className="absolute right-0 mt-1 z-30 w-[min(26rem,92vw)] sheet shadow-lg p-1.5">
      <ul
        id="material-search-list"
        role="listbox"
        aria-label="Materials"
        className="max-h-[60vh] overflow-y-auto"
      >
        {search.found.map((hit, index) => (
          <li
            key={hit.condition.id}
            id={`found-${index}`}
            role="option"
            aria-selected={index === search.active}
            onMouseDown={(event) => {
              event.preventDefault();
              search.load(hit.condition.id);
            }}
            className="flex items-center gap-3 min-h-11 px-2.5 py-1.5 rounded cursor-pointer aria-selected:bg-verdigris-pale hover:bg-verdigris-pale"
          >
            <span
              aria-hidden
              className="size-5 rounded-full border border-edge shrink-0"
              style={{ background: hit.material.colourHex }}
            />
            <span>
              <span className="block font-semibold">
                {nameCondition(hit.material.name, hit.condition.kind)}
              </span>
              <span className="block text-sm text-muted">
                {hit.material.maker} · {FAMILY_NAMES[hit.material.family]}
              </span>
            </span>
          </li>
        ))}
      </ul>
      {search.found.length === 0 ? (
        <p className="px-2.5 py-2 text-muted">
          {search.isLoading ? 'Looking …' : 'Nothing in the book is named so.'}
        </p>
      ) : null}
      <a
        href={`/materials/new${search.text ? `?name=${encodeURIComponent(search.text)}` : ''}`}
        className="flex items-center min-h-11 px-2.5 rounded font-semibold border-t border-hairline mt-1"
      >
        Add a new material by its layers
      </a>
      <Refusal error={search.error} />
    </div>
  );
}
