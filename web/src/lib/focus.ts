/** Gives the focus back to where it was before something ended, late perhaps: not where a text is being typed elsewhere by now. */
export function giveBack(to: HTMLElement | null) {
  const at = document.activeElement;
  if (at !== to && at instanceof HTMLElement && at.matches("input, textarea, [contenteditable=true]")) return;
  to?.focus();
}
