/** Whether a text is being typed. */
export const isTyping = () =>
  typeof document !== "undefined" && document.activeElement?.matches("input, textarea, [contenteditable=true]") === true;

/** Gives the focus back to where it was before something ended, late perhaps: not where a text is being typed elsewhere by now. */
export function giveBack(to: HTMLElement | null) {
  if (document.activeElement !== to && isTyping()) return;
  to?.focus();
}
