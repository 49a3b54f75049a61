import { DropdownMenu } from "radix-ui";
import type { ReactNode } from "react";
import { Icon } from "./icons";

interface Props {
  /** What is chosen, for a screen reader: "Pipe size". */
  label: string;
  value: string;
  options: readonly (readonly [value: string, shown: ReactNode, note?: string])[];
  onChange: (v: string) => void;
  className?: string;
  describedBy?: string;
  /** Shown instead of the value's own words. */
  children?: ReactNode;
}

/** One of a few: a button that opens a short list. */
export function Pick({ label, value, options, onChange, className, describedBy, children }: Props) {
  const shown = options.find(([v]) => v === value)?.[1] ?? value;
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger className={`pick ${className ?? ""}`} aria-describedby={describedBy} data-pick={label} data-value={value}>
        <span className="sr-only">{label}: </span>
        <span className="min-w-0 flex-1 truncate text-left">{children ?? shown}</span>
        <Icon name="chevron" size={14} className="text-ink-2" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="start" sideOffset={4} collisionPadding={8} className="menu" aria-label={label}>
          <DropdownMenu.RadioGroup value={value} onValueChange={onChange}>
            {options.map(([v, words, note]) => (
              <DropdownMenu.RadioItem key={v} value={v} className="menu-item" data-value={v}>
                <span className="menu-mark">
                  <DropdownMenu.ItemIndicator>
                    <Icon name="check" size={14} />
                  </DropdownMenu.ItemIndicator>
                </span>
                <span>
                  {words}
                  {note && <span className="block text-xs text-ink-2">{note}</span>}
                </span>
              </DropdownMenu.RadioItem>
            ))}
          </DropdownMenu.RadioGroup>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
