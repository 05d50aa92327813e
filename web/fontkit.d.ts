/** What is used of fontkit, which comes without types. Units are those of an em, y upwards. */
declare module 'fontkit' {
  export interface Glyph {
    readonly path: { readonly toSVG: () => string };
  }
  export interface GlyphPosition {
    readonly xAdvance: number;
    readonly xOffset: number;
    readonly yOffset: number;
  }
  export interface Font {
    readonly fullName: string;
    readonly familyName: string;
    readonly subfamilyName: string;
    readonly unitsPerEm: number;
    readonly ascent: number;
    readonly descent: number;
    readonly lineGap: number;
    readonly capHeight: number;
    readonly layout: (text: string) => {
      readonly glyphs: readonly Glyph[];
      readonly positions: readonly GlyphPosition[];
    };
    readonly hasGlyphForCodePoint: (codePoint: number) => boolean;
  }
  export interface FontCollection {
    readonly fonts: readonly Font[];
  }
  export function create(data: Uint8Array): Font | FontCollection;
}
