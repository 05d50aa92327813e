const YEAR_SECONDS = 31_536_000;

/** Remembers a choice of this browser. */
export function keepCookie(
  name: 'feather_station' | 'feather_operator' | 'feather_units' | 'feather_look' | 'feather_writing',
  value: string,
): void {
  document.cookie = `${name}=${encodeURIComponent(value)}; path=/; max-age=${YEAR_SECONDS}; samesite=lax`;
}
