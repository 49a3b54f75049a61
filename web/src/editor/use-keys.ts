import { useEffect, useRef } from "react";

/** Whether a key belongs to the field, menu or dialog that has the focus. */
function busy(t: EventTarget | null): boolean {
  if (!(t instanceof Element) || t.closest("dialog:not([open])")) return false; // a dialog that is closed and not gone yet has no keys
  return t.closest("input, textarea, select, [contenteditable], .menu, dialog[open]") !== null;
}

/**
 * The page's own keys. Names are "ctrl+z", "ctrl+shift+z" or the key itself, letters small
 * whether Caps Lock is on or not; what holds Ctrl works in fields too. A letter that is no
 * key is the name of a piece.
 */
export function useKeys(keys: Record<string, (() => void) | undefined>, onLetter?: (letter: string) => void) {
  const now = useRef({ keys, onLetter });
  now.current = { keys, onLetter };
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.altKey || e.defaultPrevented) return;
      const ctrl = e.ctrlKey || e.metaKey;
      if (!ctrl && busy(e.target)) return;
      const key = /^[a-z]$/i.test(e.key) ? e.key.toLowerCase() : e.key;
      const act = now.current.keys[ctrl ? `ctrl+${e.shiftKey ? "shift+" : ""}${key}` : key];
      if (!act && (ctrl || !now.current.onLetter || !/^[a-z]$/.test(key))) return;
      e.preventDefault();
      if (act) act();
      else now.current.onLetter?.(key.toUpperCase());
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  }, []);
}
