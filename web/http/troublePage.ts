import type { AppError } from '#core/errors/appError.ts';
import { ERROR_TABLE } from '#web/http/errorTable.ts';

/** The page asks again by itself after so many seconds. */
const HEALS_AFTER_S = 3;

/** Colours and shapes as in web/styles/tokens.css: this page stands alone, whatever else is broken. */
const STYLE = `body{margin:0;background:#f5f2ea;color:#22211d;font:16px/1.45 system-ui,sans-serif}
main{max-width:36rem;margin:12vh auto 0;padding:2rem;background:#fff;border:1px solid #ded6c4;border-radius:6px}
h1{font-size:1.5rem;line-height:1.2;margin:0}p{margin:.9rem 0 0}
a{display:inline-block;padding:.6rem 1rem;border:1px solid #22211d;border-radius:6px;color:inherit;text-decoration:none}`;

/** A page in place of one that cannot be made, in plain words; while the book is away it comes back by itself. */
export function troublePage(error: AppError): Response {
  const { status, title } = ERROR_TABLE[error.code];
  const isAway = status === 503;
  const after = isAway
    ? `<p>This page comes back by itself. What you typed elsewhere is still in its window.</p>`
    : `<p><a href="/">Back to the bench</a></p>`;
  const refresh = isAway ? `<meta http-equiv="refresh" content="${HEALS_AFTER_S}">` : '';
  const body = `<!doctype html><html lang="en"><head><meta charset="utf-8">${refresh}<meta name="viewport" content="width=device-width, initial-scale=1"><title>${escape(title)} · Pale Feather</title><style>${STYLE}</style></head><body><main id="main"><h1>${escape(title)}</h1><p role="alert">${escape(error.message)}</p>${after}</main></body></html>`;
  const headers = { 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' };
  return new Response(body, {
    status,
    headers: isAway ? { ...headers, 'retry-after': String(HEALS_AFTER_S) } : headers,
  });
}

function escape(text: string): string {
  return text.replace(/[&<>"']/g, (letter) => `&#${letter.charCodeAt(0)};`);
}
