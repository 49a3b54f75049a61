import { useCallback, useEffect, useRef, useState } from "react";
import { flushSync } from "react-dom";
import type { Asks } from "../desk/gestures";
import { useOpen } from "../desk/use";
import { Dialog } from "../ui/dialog";
import { moreAnswers, useFew } from "../ui/few";

/** How long a question is there before a key answers it: one that was meant for what was there before answers nothing. */
const toRead = 300;

const answers = (key: string) => /^[1-9]$/.test(key) || key === "Enter" || key === " ";

/**
 * Sizes and reasons that cannot hold together: what gives way? Answered by mouse, by the arrows and Enter, or by the option's number. A key
 * that is held, or comes before the question can have been read, answers nothing and is told; Escape and the mouse always count.
 */
export function Ask({ asks }: { asks: Asks }) {
  const open = useOpen();
  // the frame shows the pipe that an answer is about
  const onPipe = useCallback((id: string | undefined) => open.store.setState({ about: id }), [open]);
  const { question, choose } = asks;
  const first = useRef<HTMLButtonElement>(null);
  const group = useRef<HTMLDivElement>(null);
  const [read, setRead] = useState(false);
  const [early, setEarly] = useState<string>();
  const { shown, more, showAll } = useFew(question.options);
  useEffect(() => {
    const soon = setTimeout(() => setRead(true), toRead);
    return () => clearTimeout(soon);
  }, []);
  useEffect(() => {
    onPipe(undefined);
    first.current?.focus();
  }, [onPipe]);
  return (
    <Dialog beside title={question.title} onClose={() => choose(undefined)}>
      <p className="mb-2">{question.what}</p>
      {/* biome-ignore lint/a11y/useSemanticElements: a set of answers, not of fields */}
      <div
        ref={group}
        role="group"
        aria-label="Answers"
        className="answers"
        data-read={read}
        onKeyUp={(e) => !read && answers(e.key) && e.preventDefault()}
        onKeyDown={(e) => {
          if (answers(e.key) && (e.repeat || !read)) {
            setEarly(e.key === " " ? "Space" : e.key);
            e.preventDefault();
            e.stopPropagation();
            return;
          }
          setEarly(undefined);
          const buttons = [...e.currentTarget.querySelectorAll("button")];
          const at = buttons.indexOf(document.activeElement as HTMLButtonElement);
          if (e.key === "ArrowDown") buttons[(at + 1) % buttons.length]?.focus();
          else if (e.key === "ArrowUp") buttons[(at - 1 + buttons.length) % buttons.length]?.focus();
          else if (/^[1-9]$/.test(e.key)) buttons.filter((b) => b.dataset.option)[Number(e.key) - 1]?.click();
          else return;
          e.preventDefault();
          e.stopPropagation();
        }}
      >
        {shown.map((o, i) => (
          <button
            key={o.id}
            ref={i === 0 ? first : undefined}
            type="button"
            className="answer"
            data-option={o.id}
            onFocus={() => onPipe(o.pipe)}
            onPointerEnter={() => onPipe(o.pipe)}
            onClick={() => choose(o)}
          >
            <span className="answer-key">{i + 1}</span> {o.label}
          </button>
        ))}
        {more > 0 && (
          <button
            type="button"
            className="answer"
            onFocus={() => onPipe(undefined)}
            onPointerEnter={() => onPipe(undefined)}
            onClick={() => {
              flushSync(showAll);
              group.current?.querySelectorAll("button")[shown.length]?.focus(); // the first of those that came
            }}
          >
            {moreAnswers(more)}
          </button>
        )}
      </div>
      {more === 0 && (question.untried ?? 0) > 0 && (
        <p className="mt-2 text-sm text-muted">
          {question.untried === 1 ? "One more thing could give way and was" : `${question.untried} more things could give way and were`} not
          tried. Where it is one of them that is to change, change it by itself first.
        </p>
      )}
      <p role="status" className="mt-2 text-sm text-warn">
        {early && `${early} was held, or came before the question could be read, and answered nothing: press it once more.`}
      </p>
      <p className="mt-3">
        <button type="button" className="btn btn-small" onClick={() => choose(undefined)}>
          Leave everything as it was
        </button>
      </p>
    </Dialog>
  );
}
