import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';

/** A font that comes with the app. */
export interface ShippedFont {
  readonly id: string;
  /** What people choose it by. */
  readonly name: string;
  /** What drawings call it. */
  readonly family: string;
  readonly isBold: boolean;
  readonly file: string;
}

const next = '@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin';
const mono = '@fontsource/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin';

export const SHIPPED_FONTS: readonly ShippedFont[] = [
  {
    id: 'bold',
    name: 'Bold',
    family: 'Atkinson Hyperlegible Next',
    isBold: true,
    file: `${next}-800-normal.woff`,
  },
  {
    id: 'plain',
    name: 'Plain',
    family: 'Atkinson Hyperlegible Next',
    isBold: false,
    file: `${next}-400-normal.woff`,
  },
  {
    id: 'round',
    name: 'Round',
    family: 'Fredoka',
    isBold: true,
    file: '@fontsource/fredoka/files/fredoka-latin-600-normal.woff',
  },
  {
    id: 'script',
    name: 'Script, joined',
    family: 'Pacifico',
    isBold: false,
    file: '@fontsource/pacifico/files/pacifico-latin-400-normal.woff',
  },
  {
    id: 'even',
    name: 'Every letter as wide',
    family: 'Atkinson Hyperlegible Mono',
    isBold: true,
    file: `${mono}-700-normal.woff`,
  },
];

const require = createRequire(import.meta.url);

/** The file of a shipped font; `null` for none. */
export function readShippedFont(id: string): Buffer | null {
  const font = SHIPPED_FONTS.find((one) => one.id === id);
  return font ? readFileSync(require.resolve(font.file)) : null;
}
