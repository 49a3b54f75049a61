import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Line, Substitute } from "../../api/client";
import { substitutesOf } from "../../desk/server";
import { useNow, useOpen, usePlan, useStyle } from "../../desk/use";
import { named, namesOf } from "../../frame/names";
import { isShown, money, plural, text } from "../../lib/format";
import { kindWords, sizeWords } from "../../lib/words";
import { NoAnswer } from "../../ui/ui";

/** A fitting is not on the shelf: what may stand at every joint of its kind, with what that does, before it is taken. */
export const NotHere = ({ line }: { line: Line }) => <Instead line={line} ask="Not here" leave="It is here after all" />;

/** A fitting is what costs most: what another in its place saves. */
export const Cheaper = ({ line }: { line: Line }) => (
  <Instead line={line} ask="What another in its place saves" leave="Leave it" cheapest />
);

interface Props {
  line: Line;
  /** The button that asks. */
  ask: string;
  /** The button that puts the answer away. */
  leave: string;
  /** It is asked for what it saves: the cheapest stands first. */
  cheapest?: boolean;
}

function Instead({ line: l, ask, leave, cheapest = false }: Props) {
  const open = useOpen();
  const now = useNow();
  const [asked, setAsked] = useState(false);
  const found = useQuery({
    queryKey: ["substitutes", open.id, now.project, now.shop, l.kind, l.size],
    queryFn: ({ signal }) => substitutesOf(now, l.kind ?? "", l.size ?? "", { of: open.id, signal }),
    enabled: asked,
    staleTime: Number.POSITIVE_INFINITY,
  });
  // what asks something first has no price yet
  const all = cheapest ? found.data?.toSorted((a, b) => Number(Boolean(a.asks)) - Number(Boolean(b.asks)) || a.cost - b.cost) : found.data;
  const saves = Math.max(0, ...(all ?? []).map((s) => (s.asks ? 0 : -s.cost)));
  if (!asked)
    return (
      <p>
        <button type="button" className="btn btn-small" onClick={() => setAsked(true)}>
          {ask}
        </button>
      </p>
    );
  return (
    <section aria-label="Instead of it" className="grid gap-2" aria-live="polite">
      {found.isFetching && <p className="text-ink-2">Looking for what could stand there …</p>}
      {found.error && <NoAnswer error={found.error} retry={() => void found.refetch()} />}
      {found.data?.length === 0 && (
        <p>Nothing else of the shelf fits these joints as the pipes run. Order it ahead, or choose another fitting in the Frame lens.</p>
      )}
      {cheapest && all && all.length > 0 && (
        <p className="font-semibold">{saves > 0 ? `Up to ${money(saves)} less.` : "Nothing that could stand there costs less."}</p>
      )}
      <ul className="grid gap-2">
        {all?.map((s) => (
          <One key={`${s.frame} ${s.words} ${s.cuts.join()}`} of={s} />
        ))}
      </ul>
      <p>
        <button type="button" className="btn btn-small" onClick={() => setAsked(false)}>
          {leave}
        </button>
      </p>
    </section>
  );
}

const ways = ["wide", "deep", "high"];

function One({ of: s }: { of: Substitute }) {
  const open = useOpen();
  const style = useStyle();
  const frame = usePlan((p) => p.frames[s.frame]);
  const several = usePlan((p) => p.frames.length > 1);
  const names = namesOf(frame);
  const grows = s.grows.flatMap((g, i) =>
    isShown(Math.abs(g), style, 32) ? [`${text(Math.abs(g), style, 32)} ${g > 0 ? "more" : "less"} ${ways[i]}`] : [],
  );
  const says = [
    s.moves ? `They move ${text(s.moves, style, 32)}` : "",
    grows.length > 0 ? grows.join(", ") : s.asks ? "" : "the outside size stays",
    s.cuts.length > 0 ? `${s.cuts.join(", ")} ${s.cuts.length > 1 ? "are" : "is"} cut otherwise` : "no cut changes",
    s.nipple ? `${plural(s.joints, "nipple")} of ${text(s.nipple, style, 64)}` : "",
    s.sticks ? `${plural(Math.abs(s.sticks), "stick")} ${s.sticks > 0 ? "more" : "less"}` : "",
    s.cost > 0 ? `${money(s.cost)} more` : s.cost < 0 ? `${money(-s.cost)} less` : "",
  ].filter(Boolean);
  return (
    <li className="grid gap-1 border-t border-rule pt-1">
      <strong>
        {several && `${frame?.name || "Without a name"}: `}
        {s.words.charAt(0).toUpperCase() + s.words.slice(1)}.
      </strong>
      <span>{s.more.map((m) => `${m.more > 0 ? "+" : "−"}${Math.abs(m.more)} ${sizeWords(m.size)} ${kindWords(m.kind)}`).join(", ")}</span>
      {s.asks ? (
        <span className="font-semibold text-warn">It asks what gives way: {named(s.asks, names)}</span>
      ) : (
        <span>{says.join("; ")}.</span>
      )}
      {s.warns.map((w) => (
        <span key={w} className="font-semibold text-warn">
          {w}
        </span>
      ))}
      <button type="button" className="btn btn-small btn-fix justify-self-start" onClick={() => open.fix(s.fix, s.frame)}>
        Take it at {plural(s.joints, "joint")}
        {several && ` of ${frame?.name || "it"}`}
      </button>
    </li>
  );
}
