import type { SettingValues } from '#core/setting/settingFields.ts';

/**
 * Tab and cut length to begin with, and how far tabs keep from corners, mm: between the examples that held well, 1 mm
 * every 10 and 1.2 mm every 17. Common practice, no source (T6).
 */
const USUAL = { tabLengthMm: 1, cutLengthMm: 12, cornerClearanceMm: 3 };

/**
 * The lengths of a perforation in mm; those to begin with where a setting names none.
 *
 * @example perforationOf({ tabLengthMm: 0.8 }).tabLengthMm // 0.8
 */
export function perforationOf({
  tabLengthMm = USUAL.tabLengthMm,
  cutLengthMm = USUAL.cutLengthMm,
  cornerClearanceMm = USUAL.cornerClearanceMm,
}: Partial<Pick<SettingValues, 'tabLengthMm' | 'cutLengthMm' | 'cornerClearanceMm'>>): typeof USUAL {
  return { tabLengthMm, cutLengthMm, cornerClearanceMm };
}

/**
 * A perforation from the cuts it is made of: the through cut between tabs, the kiss force along them (T5). On a single
 * layer there is no kiss: tabs are left uncut.
 *
 * @example derivePerforated({ ...values, force: 120 }, { ...values, force: 25 }).tabForce // 25
 */
export function derivePerforated(through: SettingValues, kiss: SettingValues | null): SettingValues {
  const { strategy: _, ...values } = through;
  return {
    ...values,
    passes: 1,
    ...USUAL,
    ...(kiss ? { tabWay: 'kissForce', tabForce: kiss.force } : { tabWay: 'lifted' }),
  };
}
