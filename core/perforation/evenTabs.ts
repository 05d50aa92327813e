import type { Perforation, Tab } from '#core/perforation/placeTabs.ts';

/**
 * The tabs that a machine makes by itself on the same ring: as many, all in equal periods, none moved off a corner. The
 * stroke begins and ends in the middle of a cut.
 *
 * @example evenTabs(placeTabs(square of side 40, …)).tabs // every 10 mm from startMm + 4.5
 */
export function evenTabs({ tabs, startMm, periodMm }: Extract<Perforation, { kind: 'tabs' }>): {
  readonly tabs: readonly Tab[];
  readonly startMm: number;
} {
  const first = tabs[0];
  const tabMm = first ? first.toMm - first.fromMm : 0;
  const half = (periodMm - tabMm) / 2;
  return {
    startMm,
    tabs: tabs.map((_, index) => {
      const fromMm = startMm + half + index * periodMm;
      return { fromMm, toMm: fromMm + tabMm };
    }),
  };
}
