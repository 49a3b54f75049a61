import { useEffect, useRef } from "react";

/** Whether a key belongs to the field, menu or dialog that has the focus. */
function busy(t: EventTarget | null): boolean {
  return t instanceof Element && t.closest("input, textarea, select, [contenteditable], [role=menu], dialog[open]") !== null;
}

/** The page's own keys. Names are "ctrl+z", "ctrl+shift+z" or the key itself; what holds Ctrl works in fields too. */
export function useKeys(keys: Record<string, (() => void) | undefined>) {
  const now = useRef(keys);
  now.current = keys;
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (e.altKey || e.defaultPrevented) return;
      const ctrl = e.ctrlKey || e.metaKey;
      if (!ctrl && busy(e.target)) return;
      const name = ctrl ? `ctrl+${e.shiftKey ? "shift+" : ""}${e.key.toLowerCase()}` : e.key;
      const act = now.current[name];
      if (!act) return;
      e.preventDefault();
      act();
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  }, []);
}
