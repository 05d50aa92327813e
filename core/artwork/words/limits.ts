/** Larger files hold more than letters. */
export const MOST_FONT_BYTES = 12_000_000;
/** Longer texts are no stickers. */
export const MOST_CHARACTERS = 400;
