import { factsOf } from '#core/stack/families/families.ts';
import { Search } from 'lucide-react';
import { OPERATION_WORDS } from '#core/stack/operation.ts';
import type { Offer } from '#web/islands/materialSearch/offersOf.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { useMaterialSearch } from '#web/islands/materialSearch/useMaterialSearch.ts';
import { sayPlain } from '#web/islands/shared/units.ts';

/** Finds a material by anything printed on its pack and loads it at this station. `/` comes here from anywhere. */
export function MaterialSearch({ machineId }: { readonly machineId: number | null }) {
  const search = useMaterialSearch(machineId);
  return (
    <div className="relative w-40 sm:w-60 min-[1440px]:w-72" onBlur={search.onBlur}>
      <label htmlFor="material-search" className="sr-only">
        Find a material to load
      </label>
      <Search size={17} aria-hidden className="absolute left-3 top-3.5 text-muted" />
      <input
        id="material-search"
        className="field pl-9 pr-9"
        placeholder="Sheet, maker, lot"
        autoComplete="off"
        role="combobox"
        aria-expanded={search.isOpen}
        aria-controls="material-search-list"
        aria-activedescendant={
          search.isOpen && search.offers.length > 0 ? `found-${search.active}` : undefined
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
        {search.offers.map((offer, index) => (
          <li
            key={offer.conditionId}
            id={`found-${index}`}
            role="option"
            aria-selected={index === search.active}
            onMouseDown={(event) => {
              event.preventDefault();
              search.load(offer);
            }}
            className="flex items-center gap-3 min-h-11 px-2.5 py-1.5 rounded cursor-pointer aria-selected:bg-verdigris-pale hover:bg-verdigris-pale"
          >
            <span
              aria-hidden
              className="size-5 rounded-full border border-edge shrink-0"
              style={{ background: offer.hit.colourHex }}
            />
            <span className="grow">
              <span className="block font-semibold">{offer.name}</span>
              <span className="block text-sm text-muted">
                {offer.hit.maker} · {factsOf(offer.hit.family).name}
                {offer.why ? ` · ${offer.why}` : ''}
              </span>
            </span>
            <Known offer={offer} />
          </li>
        ))}
      </ul>
      {search.offers.length === 0 ? (
        <p className="px-2.5 py-2 text-muted">
          {search.isLoading ? 'Looking …' : 'Nothing here has that name.'}
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

/** What is kept of it at this station, so that the answer may be read off the list. */
function Known({ offer }: { readonly offer: Offer }) {
  if (offer.answers.length === 0) return <span className="text-sm text-muted">never cut here</span>;
  return (
    <span className="text-sm text-right whitespace-nowrap">
      {offer.answers.slice(0, 2).map(({ settingId, operation, force, state }) => (
        <span key={settingId} className="block">
          {OPERATION_WORDS[operation].toLowerCase()} <strong className="figure">{sayPlain(force)}</strong>{' '}
          <span className="text-muted">{state}</span>
        </span>
      ))}
    </span>
  );
}
