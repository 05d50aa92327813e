import {
  SETTING_OPERATIONS,
  type SettingField,
  type SettingOperation,
  type SettingValues,
} from '#core/setting/setting.ts';

/** What a field counts: force and speed are on the machine's own scale. */
export type FieldUnit = 'force' | 'speed' | 'mm' | 'passes' | 'share' | 'word';

/** One field of a setting: its words, its unit and the operations that have it. */
export interface FieldSpec {
  readonly label: string;
  readonly unit: FieldUnit;
  readonly operations: readonly SettingOperation[];
  /** Lowest and highest, in the unit; scales have limits of their own. */
  readonly range: readonly [number, number] | null;
}

const BLADE_CUTS = ['kiss', 'through', 'perforated', 'score'] as const;

/** Every field of a setting, in the order in which people read them. */
export const SETTING_FIELDS: Readonly<Record<SettingField, FieldSpec>> = {
  force: { label: 'force', unit: 'force', operations: SETTING_OPERATIONS, range: null },
  tabForce: { label: 'force along tabs', unit: 'force', operations: ['perforated'], range: null },
  exposureMm: { label: 'exposure', unit: 'mm', operations: BLADE_CUTS, range: null },
  speed: { label: 'speed', unit: 'speed', operations: SETTING_OPERATIONS, range: null },
  passes: { label: 'passes', unit: 'passes', operations: SETTING_OPERATIONS, range: [1, 12] },
  strategy: { label: 'way of freeing', unit: 'word', operations: ['through'], range: null },
  cutLengthMm: { label: 'cut length', unit: 'mm', operations: ['perforated'], range: [0.5, 100] },
  tabLengthMm: { label: 'tab length', unit: 'mm', operations: ['perforated'], range: [0.1, 10] },
  cornerClearanceMm: { label: 'tabs off corners by', unit: 'mm', operations: ['perforated'], range: [0, 20] },
  depthShare: { label: 'share of the layer', unit: 'share', operations: ['score'], range: [0.1, 0.95] },
  tool: { label: 'tool', unit: 'word', operations: ['crease'], range: null },
  offsetMm: { label: 'offset', unit: 'mm', operations: SETTING_OPERATIONS, range: [0, 3] },
  overcutMm: { label: 'overcut', unit: 'mm', operations: BLADE_CUTS, range: [0, 10] },
};

/** The fields of an operation, in reading order. */
export function fieldsOf(operation: SettingOperation): readonly SettingField[] {
  return (Object.keys(SETTING_FIELDS) as SettingField[]).filter((field) =>
    SETTING_FIELDS[field].operations.includes(operation),
  );
}

/** The words for each way of freeing a piece. */
export const STRATEGY_WORDS: Readonly<Record<NonNullable<SettingValues['strategy']>, string>> = {
  oneHeavy: 'one heavy pass',
  severalLight: 'several light passes',
  kissRepeats: 'kiss force repeated',
};
