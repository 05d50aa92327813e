import { z } from 'zod';
import { OPERATIONS, type Operation } from '#core/stack/operation.ts';

/** Ways of freeing a piece: both heavy and light are right on different sheets. */
export const STRATEGIES = ['oneHeavy', 'severalLight', 'kissRepeats'] as const;
export type Strategy = (typeof STRATEGIES)[number];

/** How the tabs of a perforation are made: at the kiss force, at a force of their own, or not at all, the tip lifted. */
export const TAB_WAYS = ['kissForce', 'ownForce', 'lifted'] as const;
export type TabWay = (typeof TAB_WAYS)[number];

/** What a field counts: force and speed are on the machine's own scale. */
export type FieldUnit = 'force' | 'speed' | 'mm' | 'passes' | 'share' | 'word';

/** One field of a setting: forms, CSV files, JSON files, rows and the HTTP interface are all made of this. */
export interface FieldSpec {
  readonly label: string;
  readonly unit: FieldUnit;
  readonly operations: readonly Operation[];
  /** Lowest and highest, in the unit; scales have limits of their own. */
  readonly range: readonly [number, number] | null;
  /** Heading of its column in a CSV file, with its unit. */
  readonly heading: string;
  /** What its value may be where it is read: a field that may be left out is optional here. */
  readonly value: z.ZodType;
}

const BLADE_CUTS = ['kiss', 'through', 'perforated', 'score'] as const;
const mm = z.number('a number of mm');

/** Every field of a setting, in the order in which people read them. */
export const SETTING_FIELDS = {
  force: {
    label: 'force',
    unit: 'force',
    operations: OPERATIONS,
    range: null,
    heading: 'force (machine scale)',
    value: z.number('a force').meta({ description: "on the machine's own scale" }),
  },
  strategy: {
    label: 'way of freeing',
    unit: 'word',
    operations: ['through'],
    range: null,
    heading: 'way of freeing',
    value: z.enum(STRATEGIES).optional().meta({ description: 'how the stack is parted' }),
  },
  tabWay: {
    label: 'tabs',
    unit: 'word',
    operations: ['perforated'],
    range: null,
    heading: 'how tabs are made',
    value: z.enum(TAB_WAYS).optional().meta({
      description:
        'left out: at the force that is given, at the kiss force without one, lifted without either',
    }),
  },
  tabForce: {
    label: 'force along tabs',
    unit: 'force',
    operations: ['perforated'],
    range: null,
    heading: 'tab force (machine scale)',
    value: z.number().optional().meta({
      description:
        'the kiss force where tabs go by it, else their own; left out where the tip is lifted over them',
    }),
  },
  exposureMm: {
    label: 'exposure',
    unit: 'mm',
    operations: BLADE_CUTS,
    range: null,
    heading: 'exposure (mm)',
    value: mm.min(0),
  },
  speed: {
    label: 'speed',
    unit: 'speed',
    operations: OPERATIONS,
    range: null,
    heading: 'speed (machine scale)',
    value: z.number('a speed').positive('above 0').meta({ description: "on the machine's own scale" }),
  },
  passes: {
    label: 'passes',
    unit: 'passes',
    operations: OPERATIONS,
    range: [1, 12],
    heading: 'passes',
    value: z.number('a number of passes').int('a whole number').min(1, 'at least 1').max(12, 'at most 12'),
  },
  cutLengthMm: {
    label: 'cut length',
    unit: 'mm',
    operations: ['perforated'],
    range: [0.5, 100],
    heading: 'cut length (mm)',
    value: mm.optional(),
  },
  tabLengthMm: {
    label: 'tab length',
    unit: 'mm',
    operations: ['perforated'],
    range: [0.1, 10],
    heading: 'tab length (mm)',
    value: mm.optional(),
  },
  cornerClearanceMm: {
    label: 'tabs off corners by',
    unit: 'mm',
    operations: ['perforated'],
    range: [0, 20],
    heading: 'tabs off corners (mm)',
    value: mm.optional(),
  },
  depthShare: {
    label: 'share of the layer',
    unit: 'share',
    operations: ['score'],
    range: [0.1, 0.95],
    heading: 'share of layer (0 to 1)',
    value: z.number('a share').optional(),
  },
  tool: {
    label: 'tool',
    unit: 'word',
    operations: ['crease'],
    range: null,
    heading: 'tool',
    value: z.string().trim().max(60).optional().meta({ description: 'what presses the line' }),
  },
  offsetMm: {
    label: 'offset',
    unit: 'mm',
    operations: OPERATIONS,
    range: [0, 3],
    heading: 'offset (mm)',
    value: mm.min(0).max(3),
  },
  overcutMm: {
    label: 'overcut',
    unit: 'mm',
    operations: BLADE_CUTS,
    range: [0, 10],
    heading: 'overcut (mm)',
    value: mm.min(0).max(10),
  },
} as const satisfies Readonly<Record<string, FieldSpec>>;

export type SettingField = keyof typeof SETTING_FIELDS;
export const FIELDS = Object.keys(SETTING_FIELDS) as unknown as readonly [SettingField, ...SettingField[]];

type ValueSchemas = { readonly [Field in SettingField]: (typeof SETTING_FIELDS)[Field]['value'] };

/** Reads the values of a setting, from a column, a file or a request alike. */
export const settingValuesSchema = z.object(
  Object.fromEntries(FIELDS.map((field) => [field, SETTING_FIELDS[field].value])) as unknown as ValueSchemas,
);

/** The values that a machine is set to for one operation. Force and speed are on the machine's own scales. */
export type SettingValues = Readonly<z.infer<typeof settingValuesSchema>>;

/** One field's facts. @example factsOfField('passes').range // [1, 12] */
export function factsOfField(field: SettingField): FieldSpec {
  return SETTING_FIELDS[field];
}

/**
 * The fields of an operation, in reading order.
 *
 * @example fieldsOf('crease').includes('tool') // true
 */
export function fieldsOf(operation: Operation): readonly SettingField[] {
  return FIELDS.filter((field) => factsOfField(field).operations.includes(operation));
}

/** The words for each way of making tabs. */
export const TAB_WAY_WORDS: Readonly<Record<TabWay, string>> = {
  kissForce: 'at the kiss force',
  ownForce: 'at a force of their own',
  lifted: 'left whole, tip lifted',
};

/** The words for each way of freeing a piece. */
export const STRATEGY_WORDS: Readonly<Record<Strategy, string>> = {
  oneHeavy: 'one heavy pass',
  severalLight: 'several light passes',
  kissRepeats: 'kiss force repeated',
};
