const OFF = 'feather_keys_off';

/** Whether single keys do something in this browser; who speaks to the computer may want them off. */
export function areKeysOn(): boolean {
  return localStorage.getItem(OFF) === null;
}

export function switchKeys(isOn: boolean): void {
  if (isOn) localStorage.removeItem(OFF);
  else localStorage.setItem(OFF, '1');
}

/** Whether a key is pressed in a field, where it is typed. */
export function isTyping({ target }: KeyboardEvent): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) &&
    !(target instanceof HTMLInputElement && /^(checkbox|radio|button|file|range)$/.test(target.type))
  );
}

/** Whether a key is pressed for what it does on the page: alone, outside of fields, where single keys are on. */
export function isSingleKey(event: KeyboardEvent): boolean {
  return !event.ctrlKey && !event.metaKey && !event.altKey && !isTyping(event) && areKeysOn();
}
