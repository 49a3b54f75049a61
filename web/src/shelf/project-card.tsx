import { useQuery } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { useEffect, useRef, useState } from "react";
import { Link } from "wouter";
import { type Card, type ProjectLine, api, ask } from "../api/client";
import { Len, type Style, money, plural } from "../lib/format";
import { Icon } from "../ui/icons";
import { Tick } from "../ui/tick";
import { ExampleMark } from "../ui/ui";

interface Props {
  line: ProjectLine;
  onDelete: () => void;
  onCopy: () => void;
  onRename: (name: string) => void;
  /** Whether it is chosen to be bought with others; nothing while none are chosen. */
  chosen?: boolean;
  onChoose: (chosen: boolean) => void;
}

const states: Record<string, string> = {
  ready: "ready to buy",
  look: "take a look",
  stopped: "cannot be built so",
  partly: "unfinished",
  waits: "waits",
};

/** A project as it stands on the shelf. It is drawn when it comes into sight. */
export function ProjectCard({ line: p, onDelete, onCopy, onRename, chosen, onChoose }: Props) {
  const box = useRef<HTMLLIElement>(null);
  const renaming = useRef(false);
  const [seen, setSeen] = useState(false);
  const [typed, setTyped] = useState<string>();
  useEffect(() => {
    const el = box.current;
    if (!el) return;
    const o = new IntersectionObserver((es) => es.some((e) => e.isIntersecting) && setSeen(true), { rootMargin: "300px" });
    o.observe(el);
    return () => o.disconnect();
  }, []);
  const card = useQuery({
    queryKey: ["card", p.id, p.revision],
    enabled: seen,
    staleTime: 0,
    queryFn: () => ask(api.GET("/api/projects/{id}/card", { params: { path: { id: p.id } } })),
  });
  const c = card.data;
  const done = () => {
    if (typed?.trim() && typed !== p.name) onRename(typed.trim());
    setTyped(undefined);
  };
  return (
    <li ref={box} className="card">
      <Link href={`/p/${p.id}`} className="card-link" aria-label={p.name || "Without a name"}>
        <span className="card-picture" aria-hidden="true" dangerouslySetInnerHTML={{ __html: c?.drawing ?? "" }} />
      </Link>
      <div className="flex items-start gap-2">
        {chosen !== undefined && <Tick label={`Buy ${p.name} with the others`} done={chosen} onTick={onChoose} />}
        {typed === undefined ? (
          <Link href={`/p/${p.id}`} className="card-name" tabIndex={-1} aria-hidden="true">
            {p.name || "Without a name"}
            {c?.starter && <span className="font-sans text-sm font-normal text-ink-2"> a starter</span>}
          </Link>
        ) : (
          <input
            className="field font-display text-lg font-semibold"
            aria-label={`New name of ${p.name}`}
            // biome-ignore lint/a11y/noAutofocus: the field takes the place of the name
            autoFocus
            onFocus={(e) => e.target.select()}
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onBlur={done}
            onKeyDown={(e) => {
              if (e.key === "Enter") done();
              if (e.key === "Escape") setTyped(undefined);
            }}
          />
        )}
        <DropdownMenu.Root modal={false}>
          <DropdownMenu.Trigger className="icon-btn" aria-label={`More for ${p.name}`}>
            <Icon name="more" />
          </DropdownMenu.Trigger>
          <DropdownMenu.Portal>
            <DropdownMenu.Content
              align="end"
              sideOffset={4}
              className="menu"
              aria-label={`More for ${p.name}`}
              onCloseAutoFocus={(e) => {
                // the field has the focus, not the menu's button
                if (renaming.current) e.preventDefault();
                renaming.current = false;
              }}
            >
              <DropdownMenu.Item
                className="menu-item"
                onSelect={() => {
                  renaming.current = true;
                  setTyped(p.name);
                }}
              >
                <Icon name="rename" size={18} /> Rename
              </DropdownMenu.Item>
              <DropdownMenu.Item className="menu-item" onSelect={onCopy}>
                <Icon name="copy" size={18} /> Duplicate
              </DropdownMenu.Item>
              <DropdownMenu.Item className="menu-item" onSelect={() => onChoose(true)}>
                <Icon name="buy" size={18} /> Buy with others
              </DropdownMenu.Item>
              <DropdownMenu.Item className="menu-item" onSelect={onDelete}>
                <Icon name="bin" size={18} /> Delete
              </DropdownMenu.Item>
            </DropdownMenu.Content>
          </DropdownMenu.Portal>
        </DropdownMenu.Root>
      </div>
      {card.error && <p className="text-sm text-bad">It could not be drawn.</p>}
      {c && <Facts card={c} />}
      <p className="text-xs text-ink-2">
        changed {new Date(p.updated).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" })}
      </p>
    </li>
  );
}

function Facts({ card: c }: { card: Card }) {
  const style = (c.style || "inches") as Style;
  return (
    <>
      {c.state !== "waits" && (
        <p className="flex flex-wrap items-baseline justify-between gap-x-3">
          <span>
            {c.size.map((v, i) => (
              <span key={i}>
                {i > 0 && <span className="text-ink-2"> × </span>}
                <Len nm={v} style={style} />
              </span>
            ))}
          </span>
          <span className="font-display text-lg font-semibold">
            {money(c.cost)}
            {(c.unpriced > 0 || c.state === "partly") && "+"}
            {c.example && <ExampleMark short />}
          </span>
        </p>
      )}
      <p className={`text-sm is-${c.state} state`}>
        <span className="state-mark" aria-hidden="true" />
        <span>
          {c.state === "waits" ? c.words : states[c.state]}
          {(c.state === "look" || c.state === "stopped" || c.state === "partly") && `: ${c.words}`}
          {c.state !== "waits" && (
            <span className="text-ink-2">{`, ${sticksOf(c)}${c.state === "partly" ? " so far" : ""}${c.copies > 1 ? ` for ${c.copies} copies` : ""}`}</span>
          )}
        </span>
      </p>
    </>
  );
}

/** Its sticks, and how far the work is. */
function sticksOf(c: Card): string {
  const bought = c.bought === 0 ? "" : c.bought >= c.sticks ? " bought" : `, ${c.bought} bought`;
  const cut = c.cut === 0 ? "" : c.cut >= c.pieces ? ", all cut" : `, ${c.cut} of ${c.pieces} pieces cut`;
  return `${plural(c.sticks, "stick")}${bought}${cut}`;
}
