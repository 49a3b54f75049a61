import type { Size } from "../api/client";
import type { Held, Subject } from "../desk/history";
import { meaning } from "../lib/words";
import { Popover } from "radix-ui";
import { useRef, useState } from "react";
import { LengthField } from "../lens/size/length-field";
import { useLive } from "../lens/size/live";
import { type Target, asTyped, meaningsOf, styleOf, tapeStep } from "../lens/size/targets";
import { Len, type Style } from "../lib/format";
import { Pick } from "../ui/pick";
import type { SizeLine } from "./overlay";
import { usePull } from "./use-pull";

interface Props {
  target: Target;
  style: Style;
  lit: boolean;
  tell: (el: HTMLElement | null) => void;
  tellGrip: (el: HTMLElement | null) => void;
  line: () => SizeLine | undefined;
  onOpen: () => void;
  onText: (text: string, on: Subject) => void;
  onMeaning: (m: string) => void;
  onSettle: () => void;
}

/** A stated size where it lies on the frame: press it to type, pull its end to change it. */
export function SizeLabel({ target: t, style, lit, tell, tellGrip, line, onOpen, onText, onMeaning, onSettle }: Props) {
  const [open, setOpen] = useState(false);
  const size = t.sized;
  if (!size) return null;
  const is = size.holds ? size.value : size.out; // what gave way is not drawn as it was asked for
  return (
    <>
      <Popover.Root
        open={open}
        onOpenChange={(o) => {
          setOpen(o);
          if (o) onOpen();
          else onSettle();
        }}
      >
        <Popover.Trigger
          ref={tell}
          tabIndex={-1}
          className={`size-label ${size.axis === 2 ? "is-upright" : ""} ${lit ? "is-lit" : ""} ${t.error ? "is-bad" : ""}`}
          title={`${t.label}, ${meaning(size.meaning)}: press to type`}
        >
          {/* what has no name of its own is told by its place */}
          <span className={size.label ? "size-name" : "sr-only"}>{t.label} </span>
          <strong>
            <Len nm={is} style={size.holds ? styleOf(is, style) : style} step={64} />
          </strong>
          {!size.holds && <AskedFor of={size} style={style} />}
          <span className="sr-only"> on the frame</span>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            sideOffset={4}
            collisionPadding={8}
            className="note grid w-60 gap-2 text-sm"
            aria-label={t.label}
            onEscapeKeyDown={() => setOpen(false)}
          >
            <SizeEditor target={t} style={style} onText={onText} onMeaning={onMeaning} onSettle={onSettle} onDone={() => setOpen(false)} />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      <Grip
        tell={tellGrip}
        name={t.label}
        line={line}
        value={is}
        style={style}
        onText={onText}
        onOpen={onOpen}
        onSettle={onSettle}
        id={t.key}
      />
    </>
  );
}

/** What was asked for, where it is not so. */
export function AskedFor({ of, style }: { of: Size; style: Style }) {
  return (
    <s className="font-normal text-bad" title={of.gave ? `As typed; it gave way to ${of.gave}` : "As typed; it does not hold"}>
      <span className="sr-only">in the place of </span>
      <Len nm={of.value} style={styleOf(of.value, style)} step={64} />
    </s>
  );
}

type EditorProps = { [K in "target" | "style" | "onText" | "onMeaning" | "onSettle"]: Props[K] } & { onDone: () => void };

/** The field that takes the label's place, with what is typed this moment. */
function SizeEditor({ target, style, onText, onMeaning, onSettle, onDone }: EditorProps) {
  const t = useLive(target);
  const meanings = meaningsOf(t);
  return (
    <>
      <LengthField
        label={t.label}
        target={t}
        style={style}
        autoFocus
        onChange={(text, nudged) => onText(text, `size ${t.key} ${nudged ? "nudged" : "typed"}`)}
        onDone={onSettle}
        onKey={(k) => k === "Enter" && onDone()}
      />
      {meanings.length > 1 ? (
        <Pick label={`What ${t.label} means`} value={t.answer.meaning || meanings[0]?.[0] || ""} options={meanings} onChange={onMeaning} />
      ) : (
        <span className="text-ink-2">{meaning(t.prompt.meanings?.[0] ?? "")}</span>
      )}
      {t.error && (
        <p role="alert" className="font-semibold text-bad">
          {t.error}
        </p>
      )}
    </>
  );
}

interface GripProps {
  id: string;
  name: string;
  value: number;
  style: Style;
  tell: (el: HTMLElement | null) => void;
  line: () => SizeLine | undefined;
  onText: (text: string, on: Held) => void;
  onOpen: () => void;
  onSettle: () => void;
}

/** The end of a size's line, to be pulled. It keeps to the steps of the tape. */
function Grip({ id, name, value, style, tell, line, onText, onOpen, onSettle }: GripProps) {
  const from = useRef({ value, said: value });
  const bind = usePull({
    line,
    name: `size ${id}`,
    onBegin: () => {
      from.current = { value, said: value };
      onOpen();
    },
    onMove: (far, on) => {
      const step = tapeStep(style);
      const next = Math.max(step, Math.round((from.current.value + far) / step) * step);
      if (next === from.current.said) return;
      from.current.said = next;
      onText(asTyped(next, style), on);
    },
    onEnd: onSettle,
  });
  return <span ref={tell} className="grip" title={`Pull to change ${name}`} aria-hidden="true" {...bind()} />;
}
