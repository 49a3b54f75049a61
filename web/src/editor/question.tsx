import { useCallback, useEffect, useRef } from "react";
import type { Asks } from "../desk/gestures";
import { useOpen } from "../desk/use";
import { Dialog } from "../ui/dialog";

/** Sizes and reasons that cannot hold together: what gives way? Answered by mouse, by the arrows and Enter, or by the option's number. */
export function Ask({ asks }: { asks: Asks }) {
  const open = useOpen();
  // the frame shows the pipe that an answer is about
  const onPipe = useCallback((id: string | undefined) => open.store.setState({ about: id }), [open]);
  const { question, choose } = asks;
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    onPipe(undefined);
    first.current?.focus();
  }, [onPipe]);
  return (
    <Dialog beside title={question.title} onClose={() => choose(undefined)}>
      <p className="mb-2">{question.what}</p>
      {/* biome-ignore lint/a11y/useSemanticElements: a set of answers, not of fields */}
      <div
        role="group"
        aria-label="Answers"
        className="answers"
        onKeyDown={(e) => {
          const all = [...e.currentTarget.querySelectorAll("button")];
          const at = all.indexOf(document.activeElement as HTMLButtonElement);
          if (e.key === "ArrowDown") all[(at + 1) % all.length]?.focus();
          else if (e.key === "ArrowUp") all[(at - 1 + all.length) % all.length]?.focus();
          else if (/^[1-9]$/.test(e.key)) all[Number(e.key) - 1]?.click();
          else return;
          e.preventDefault();
          e.stopPropagation();
        }}
      >
        {question.options.map((o, i) => (
          <button
            key={o.id}
            ref={i === 0 ? first : undefined}
            type="button"
            className="answer"
            onFocus={() => onPipe(o.pipe)}
            onPointerEnter={() => onPipe(o.pipe)}
            onClick={() => choose(o.id)}
          >
            <span className="answer-key">{i + 1}</span> {o.label}
          </button>
        ))}
      </div>
      <p className="mt-3">
        <button type="button" className="btn btn-small" onClick={() => choose(undefined)}>
          Leave everything as it was
        </button>
      </p>
    </Dialog>
  );
}
