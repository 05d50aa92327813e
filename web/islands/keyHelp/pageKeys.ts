import { isSingleKey, isTyping } from '#web/islands/shared/singleKeys.ts';

/** What on this page has keys of its own: `data-keys="g b"` for one after the other, `"2, n"` for either. */
const KEYED = '[data-keys]';
/** Keys that begin a pair, and how long the second may take, ms. */
const PAUSE_MS = 1500;
/** What takes keys for itself while it is open. */
const OPEN = '[role="dialog"], [role="menu"]';
const LANDING = 'feather_landing';

/** A thing on the page with the keys that reach it. */
export interface PageKey {
  readonly keys: readonly string[];
  readonly does: string;
}

function isShown(one: HTMLElement): boolean {
  return one.getClientRects().length > 0 && !one.matches(':disabled, [aria-disabled="true"]');
}

function keysOf(one: HTMLElement): readonly string[] {
  return (one.dataset['keys'] ?? '').split(', ');
}

function allKeyed(): readonly HTMLElement[] {
  return [...document.querySelectorAll<HTMLElement>(KEYED)].filter(isShown);
}

/** What this page's keys do, in the order of the page. */
export function listPageKeys(): readonly PageKey[] {
  return allKeyed().map((one) => ({
    keys: keysOf(one),
    does: (one.dataset['does'] ?? one.getAttribute('aria-label') ?? one.textContent)
      .replace(/\s+/g, ' ')
      .trim(),
  }));
}

/** Goes to what has these keys and presses it. */
function press(keys: string): boolean {
  const found = allKeyed().find((one) => keysOf(one).includes(keys));
  if (!found) return false;
  found.focus();
  if (!found.matches('input, textarea, select')) found.click();
  return true;
}

/** Ctrl and Enter keep what is being typed, from whichever field. */
function keepTyped(target: EventTarget | null): boolean {
  const form = target instanceof Element ? target.closest('form') : null;
  if (!form) return press('k');
  form.requestSubmit();
  return true;
}

/** Listens for the keys of a page until it is told to stop. */
export function hearPageKeys(): () => void {
  let first: { readonly key: string; readonly at: number } | null = null;
  const begins = (key: string) =>
    allKeyed().some((one) => keysOf(one).some((keys) => keys.startsWith(`${key} `)));
  const onKey = (event: KeyboardEvent) => {
    rememberKeyboard(event);
    if (event.key === 'Enter' && (event.ctrlKey || event.metaKey) && keepTyped(event.target)) {
      event.preventDefault();
      return;
    }
    const isOne = event.key.length === 1 || event.key.startsWith('Arrow');
    if (!isSingleKey(event) || !isOne || document.querySelector(OPEN)) return;
    const isPair = first !== null && event.timeStamp - first.at < PAUSE_MS;
    const keys = isPair && first ? `${first.key} ${event.key}` : event.key;
    first = null;
    const isDone = press(keys);
    if (!isDone && !isPair && begins(event.key)) first = { key: event.key, at: event.timeStamp };
    if (!isDone && !isPair && first === null) return;
    // The second of a pair is nobody else's: u alone takes a cut back.
    event.preventDefault();
    event.stopImmediatePropagation();
  };
  document.addEventListener('keydown', onKey, { capture: true });
  return () => document.removeEventListener('keydown', onKey, { capture: true });
}

/** Who goes from page to page by keys begins in what the page is for, not at the menu again. */
function rememberKeyboard({ key, target }: KeyboardEvent): void {
  if (key === 'Tab' || key === 'Shift') return;
  const isMoving = key === 'Enter' || key === ' ' || !isTyping({ target } as KeyboardEvent);
  if (isMoving) sessionStorage.setItem(LANDING, String(Date.now()));
}

/** How long after a key a page may come to be its answer, ms. */
const ANSWER_MS = 8000;

/** Puts the focus to where the work is, where a key has led to this page. */
export function landAtWork(): void {
  const at = Number(sessionStorage.getItem(LANDING) ?? 0);
  sessionStorage.removeItem(LANDING);
  if (Date.now() - at > ANSWER_MS || document.activeElement !== document.body || location.hash !== '') return;
  document.getElementById('main')?.focus({ preventScroll: true });
}
