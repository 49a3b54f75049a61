import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import { Icon } from "./icons";
import { Menu } from "./menu";

interface Props {
  /** What is chosen: "Pipe size". It names the list for who hears the page, and finds it. */
  label: string;
  value: string;
  options: readonly (readonly [value: string, shown: ReactNode, note?: string])[];
  onChange: (v: string) => void;
  className?: string;
  describedBy?: string;
  /** What is chosen is refused; the element of describedBy says why. */
  invalid?: boolean;
  /** The label stands above the list; elsewhere what is about says what is chosen. */
  labelled?: boolean;
  /** Shown instead of the value's own words. */
  children?: ReactNode;
}

/** A list opens at what is chosen. */
function toHand(chosen: HTMLElement | null) {
  chosen?.focus({ preventScroll: true }); // it is not yet in its place
  requestAnimationFrame(() => chosen?.scrollIntoView({ block: "nearest" }));
}

/**
 * A list box: one of a few. The button shows what is chosen and opens the list,
 * in which arrows, Home, End and the first letters move. It is a menu's keyboard
 * and placing under the roles of a list box, for a menu does things and this chooses.
 */
export function Pick({ label, value, options, onChange, className, describedBy, invalid, labelled, children }: Props) {
  const shown = options.find(([v]) => v === value)?.[1] ?? value;
  const box = (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger
        role="combobox"
        aria-haspopup="listbox"
        aria-label={label}
        aria-invalid={invalid || undefined}
        aria-describedby={describedBy}
        className={`pick ${className ?? ""}`}
        data-value={value}
      >
        <span className="min-w-0 flex-1 truncate text-left">{children ?? shown}</span>
        <Icon name="chevron" size={14} className="text-ink-2" />
      </DropdownMenu.Trigger>
      <Menu role="listbox" aria-label={label}>
        {options.map(([v, words, note]) => (
          <DropdownMenu.Item
            key={v}
            ref={v === value ? toHand : undefined}
            role="option"
            aria-selected={v === value}
            className="menu-item"
            data-value={v}
            onSelect={() => onChange(v)}
          >
            <span className="menu-mark">{v === value && <Icon name="check" size={14} />}</span>
            <span>
              {words}
              {note && <span className="block text-xs text-ink-2">{note}</span>}
            </span>
          </DropdownMenu.Item>
        ))}
      </Menu>
    </DropdownMenu.Root>
  );
  if (!labelled) return box;
  return (
    <div className="grid gap-0.5 text-sm">
      <span aria-hidden="true" className="text-ink-2">
        {label}
      </span>
      {box}
    </div>
  );
}
