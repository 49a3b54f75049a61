import { Popover } from "radix-ui";
import type { Fix } from "../api/client";
import { FindingText } from "../editor/findings";
import type { Tag } from "./paint";

/** A label on the frame. It is for the eye and the hand; the list of pipes and joints says the same to a screen reader. */
export function FrameTag({
  tag,
  lit,
  tell,
  onPick,
  onFix,
}: {
  tag: Tag;
  lit: boolean;
  tell: (el: HTMLElement | null) => void;
  onPick: () => void;
  onFix: (x: Fix) => void;
}) {
  if (tag.finding)
    return (
      <Popover.Root>
        <Popover.Trigger
          ref={tell}
          className={`tag tag-finding is-${tag.finding.severity}`}
          title={tag.title}
          aria-label={`Finding: ${tag.finding.text}`}
          onClick={onPick}
        >
          {tag.text}
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content sideOffset={6} collisionPadding={12} className="note max-w-xs text-sm" aria-label="Finding">
            <FindingText of={tag.finding} onFix={onFix} />
            <Popover.Arrow className="fill-ink" />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    );
  return (
    <button
      ref={tell}
      type="button"
      tabIndex={-1}
      aria-hidden="true"
      className={`tag tag-${tag.look} ${lit ? "is-lit" : ""}`}
      title={tag.title}
      onClick={onPick}
    >
      {tag.text}
    </button>
  );
}
