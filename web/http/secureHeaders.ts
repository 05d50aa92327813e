/** Where everything but scripts may come from. Scripts are named by the hashes of the build. */
const SOURCES = [
  "default-src 'self'",
  "img-src 'self' data: blob:",
  "style-src 'self' 'unsafe-inline'",
  "object-src 'none'",
  "frame-ancestors 'none'",
  "base-uri 'none'",
  "form-action 'self'",
];

/** Headers that every answer needs; a page runs the scripts of the build, by their hashes, and no others. */
export function secureHeaders(headers: Headers): void {
  headers.set('x-content-type-options', 'nosniff');
  headers.set('referrer-policy', 'same-origin');
  headers.set('cross-origin-opener-policy', 'same-origin');
  headers.set('cross-origin-resource-policy', 'same-origin');
  const made = headers.get('content-security-policy')?.split(';') ?? [];
  const scripts = made.map((part) => part.trim()).find((part) => part.startsWith('script-src '));
  headers.set('content-security-policy', [...SOURCES, scripts ?? "script-src 'self'"].join('; '));
}
