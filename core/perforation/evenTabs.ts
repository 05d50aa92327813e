import type { Perforation, Tab } from '#core/perforation/placeTabs.ts';

/**
 * The tabs that a machine makes by itself on the same ring: as many, all in equal periods, none moved off a corner. The
 * stroke begins and ends in the middle of a cut.
 *
 * @example evenTabs({ tabs: [{ fromMm: 9, toMm: 10 }, { fromMm: 18, toMm: 20 }], startMm: 4, periodMm: 10 }).tabs // [{ fromMm: 8.5, toMm: 9.5 }, { fromMm: 18.5, toMm: 19.5 }]
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
