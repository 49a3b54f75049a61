import { type ReactNode, useEffect, useRef, useState } from "react";
import { MenuHome } from "./menu";
import { IconButton } from "./ui";

/** A dialog of the browser's own, which keeps the focus inside and closes on Escape. */
export function Dialog({
  title,
  onClose,
  children,
  bare,
  beside,
}: {
  title: string;
  onClose: () => void;
  children: ReactNode;
  bare?: boolean /** the frame stays in view */;
  beside?: boolean;
}) {
  const box = useRef<HTMLDialogElement>(null);
  const [home, setHome] = useState<HTMLElement | null>(null);
  useEffect(() => {
    const d = box.current;
    if (!d || d.open) return;
    d.showModal();
    setHome(d);
    // the browser would take the first thing that can have the focus
    d.querySelector<HTMLElement>('input, [role="combobox"]')?.focus();
  }, []);
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: Escape closes it by keyboard
    <dialog
      ref={box}
      aria-label={title}
      className={beside ? "dialog dialog-beside" : "dialog"}
      onClose={onClose}
      onClick={(e) => e.target === box.current && box.current?.close()}
    >
      {!bare && (
        <div className="sheet-head">
          <h2>{title}</h2>
          <IconButton icon="close" label="Close" onClick={() => box.current?.close()} />
        </div>
      )}
      <MenuHome value={home}>{children}</MenuHome>
    </dialog>
  );
}
