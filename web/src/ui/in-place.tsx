import { type ReactNode, useEffect, useId, useRef, useState } from "react";
import { giveBack } from "../lib/focus";
import { Unanswered } from "../lib/touch";

interface Props {
  label: string;
  shown: ReactNode;
  /** The text it begins with. */
  start: string;
  /** Takes what was typed. What it throws is shown beneath the field, which keeps its text. */
  take: (text: string) => Promise<void> | void;
  className?: string;
  /** Keeps the text, by this name, until it is taken or let go: a reload does not lose it. */
  keep?: string;
}

const drafts = {
  get: (name?: string) => (name ? (sessionStorage.getItem(`sturdyelbow.typed.${name}`) ?? undefined) : undefined),
  set: (name: string | undefined, text: string | undefined) => {
    if (!name) return;
    if (text === undefined) sessionStorage.removeItem(`sturdyelbow.typed.${name}`);
    else sessionStorage.setItem(`sturdyelbow.typed.${name}`, text);
  },
};

const again = 3000; // ms until the server is asked again

/**
 * A figure that is a button until it is pressed, and then a field. Leaving it takes what was typed; what cannot be read
 * stays in the field, with its reason, until it is mended or let go with Escape.
 */
export function InPlace({ label, shown, start, take, className, keep }: Props) {
  const [typed, setTyped] = useState(() => drafts.get(keep));
  const [why, setWhy] = useState<string>();
  const busy = useRef(false);
  const [unanswered, setUnanswered] = useState(false);
  const id = useId();
  const button = useRef<HTMLButtonElement>(null);
  const back = useRef(false);
  // it was pressed open: what is typed next is meant for it. One that a reload kept open takes nothing by itself
  const pressed = useRef(false);
  useEffect(() => {
    if (typed === undefined && back.current) {
      back.current = false;
      giveBack(button.current);
    }
  }, [typed]);
  // what the server did not answer is asked again, until it is typed otherwise
  const input = useRef<HTMLInputElement>(null);
  const ask = useRef<(byKey: boolean) => Promise<void>>(undefined);
  useEffect(() => {
    if (!unanswered) return;
    const timer = setInterval(() => void ask.current?.(document.activeElement === input.current), again);
    return () => clearInterval(timer);
  }, [unanswered]);
  const now = useRef(typed);
  const set = (text: string | undefined) => {
    now.current = text;
    if (text === undefined) setUnanswered(false);
    drafts.set(keep, text);
    setTyped(text);
  };
  if (typed === undefined)
    return (
      <button
        ref={button}
        type="button"
        className="in-place"
        onClick={() => {
          pressed.current = true;
          set(start);
        }}
      >
        <span className="sr-only">{label}: </span>
        {shown}
      </button>
    );
  const done = async (byKey: boolean) => {
    if (busy.current) return;
    if (typed.trim() === start.trim() || typed.trim() === "") {
      back.current = byKey;
      setWhy(undefined);
      set(undefined);
      return;
    }
    busy.current = true;
    try {
      await take(typed.trim());
      setWhy(undefined);
      if (now.current === typed) {
        back.current = byKey;
        set(undefined);
      }
    } catch (e) {
      setUnanswered(e instanceof Unanswered);
      setWhy(e instanceof Error ? e.message : String(e));
    } finally {
      busy.current = false;
    }
    // what was typed meanwhile, and left, is taken next
    if (now.current !== undefined && now.current !== typed && document.activeElement !== input.current) void ask.current?.(false);
  };
  ask.current = done;
  return (
    <span className="inline-block max-w-full">
      <input
        ref={input}
        className={`field text-right ${className ?? "w-24"}`}
        aria-label={label}
        aria-invalid={why !== undefined}
        aria-describedby={why ? id : undefined}
        // biome-ignore lint/a11y/noAutofocus: the field takes the place of the button that was pressed
        autoFocus={pressed.current}
        onFocus={(e) => e.target.select()}
        autoComplete="off"
        spellCheck={false}
        value={typed}
        onChange={(e) => {
          setUnanswered(false);
          set(e.target.value);
        }}
        onBlur={() => void done(false)}
        onKeyDown={(e) => {
          if (e.key === "Escape") {
            e.stopPropagation();
            back.current = true;
            setWhy(undefined);
            set(undefined);
          }
          if (e.key === "Enter") {
            e.preventDefault();
            void done(true);
          }
        }}
      />
      {why && (
        <span id={id} role="alert" className="block max-w-56 pt-0.5 text-left text-xs font-semibold text-bad">
          {why}
        </span>
      )}
    </span>
  );
}
