/** Texts are typed here, or something is asked that has to be answered first. */
const typed =
  'input:not([type=range], [type=checkbox], [type=radio]), textarea, [contenteditable=true], [role=dialog]';
/** What else does something of its own when Space is pressed on it; sliders do nothing with it. */
const pressed =
  'button, a[href], input:not([type=range]), select, summary, [role=button], [role=switch], [role=tab], [role=menuitem], [role=option], .dropdown-menu';

const isWithin = (target: EventTarget | null, selector: string): boolean =>
  target instanceof Element && target.closest(selector) !== null;

/** Whether what is typed or pasted belongs to a text. */
export const isTyping = (target: EventTarget | null): boolean => isWithin(target, typed);

/** Whether Space belongs to what is focused. Elsewhere it records. */
export const takesKeys = (target: EventTarget | null): boolean =>
  isTyping(target) || isWithin(target, pressed);

/**
 * A button, a switch or a link that was pressed with the mouse gives the keys back to the bench, so that Space records again; what
 * was reached by keys keeps them, and so do fields, menus that are open, and dialogs.
 */
export function giveKeysBack(event: MouseEvent): void {
  const { activeElement } = document;
  if (event.detail === 0 || !(activeElement instanceof HTMLElement)) return;
  const isPlain =
    activeElement.matches('button, a[href], input:is([type=checkbox], [type=radio])') &&
    activeElement.ariaExpanded !== 'true';
  if (
    isPlain &&
    isWithin(event.target, 'button, a[href], input, label') &&
    !isWithin(activeElement, '[role=dialog], .dropdown-menu')
  )
    activeElement.blur();
}
