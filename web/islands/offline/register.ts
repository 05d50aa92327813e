/** Has the browser keep pages for when there is no network, where it does that: on this computer, and with TLS. */
export function keepPages(): void {
  if (!('serviceWorker' in navigator)) return;
  // A browser that refuses works as before, but for the pages it would have kept.
  navigator.serviceWorker.register('/sw.js').catch(() => undefined);
}
