const FIELDS = 'input, textarea, [contenteditable]';

/** Places beside them whose plain keys are their own: sliders, open panels and menus, dialogs. */
const OWN_KEYS = `${FIELDS}, [role=slider], [role=dialog], [role=menu]`;

const within = (event: Event, places: string): boolean =>
  event.target instanceof Element && event.target.closest(places) !== null;

/** True where a key press belongs to a field that is being typed in. */
export const isTyping = (event: KeyboardEvent): boolean => within(event, FIELDS);

/** True where a plain key belongs to a field, or to something else that keeps its keys. */
export const isTaken = (event: KeyboardEvent): boolean => within(event, OWN_KEYS);

/** True where a button or a link has the focus: space and Enter are its own then, and no shortcut. */
export const isOwnKey = (event: KeyboardEvent): boolean => within(event, 'button, a, [role=button]');

/**
 * Takes the focus from a button that was pressed by pointer, so that space is a shortcut again; by keyboard it keeps it, and in an
 * open panel too, which Escape closes.
 */
export function letGoOfButton(event: MouseEvent): void {
  if (event.detail === 0 || !(event.target instanceof HTMLElement) || event.target.closest('[role=dialog], [role=menu]')) return;
  event.target.closest('button')?.blur();
}
