/** The bytes of a data address; of a long one only the first so many. */
export function bytesOf(address: string, most = Infinity): Uint8Array<ArrayBuffer> {
  const start = address.indexOf(',') + 1;
  if (!address.slice(0, start).endsWith(';base64,'))
    return new TextEncoder().encode(decodeURIComponent(address.slice(start)));
  // Four letters carry three bytes.
  const letters = address.slice(start, start + 4 * Math.ceil(most / 3));
  return Uint8Array.from(atob(letters), (letter) => letter.charCodeAt(0));
}

/** What a data address holds. */
export function blobOf(address: string): Blob {
  return new Blob([bytesOf(address)], { type: /^data:([^;,]+)/.exec(address)?.[1] ?? '' });
}
