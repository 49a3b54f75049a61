import { DropdownMenu } from "radix-ui";
import { useId, useState } from "react";
import type { Place, Size } from "../../api/client";
import { Len, type Style, meaning, plural, text } from "../../lib/format";
import { Icon } from "../../ui/icons";
import { Pick } from "../../ui/pick";
import { Head } from "../../ui/ui";
import type { LensProps } from "../lens";
import { LineField } from "./line-field";
import { Refused } from "./refused";

type Stood = Place["stations"][number][number];

const axisWords = ["Across, left to right", "In depth, near to away", "In height, from below"];

/** The stations of the frame, or of a part, along its three axes, with the bays between them. */
export function Stations({ frame, style, gesture, part, onPart, marked, onMark, ...rest }: LensProps & { part: string; onPart: (p: string) => void }) {
  const place = frame.places.find((p) => p.path === part);
  if (!place) return null;
  const scopes = frame.places.filter((p, i) => frame.places.findIndex((q) => q.group === p.group) === i);
  return (
    <section aria-labelledby="stations-head">
      <Head id="stations-head" title="Stations and bays">
        {scopes.length > 1 && <Pick label="Whose stations" value={part} options={scopes.map((p) => [p.path, p.path === "" ? "the frame" : `every ${frame.parts.find((x) => x.path === p.path)?.name ?? p.group}`] as const)} onChange={onPart} />}
      </Head>
      {place.stations.map((all, axis) => (
        <Axis key={axisWords[axis]} axis={axis} all={all} sizes={frame.sizes} style={style} gesture={gesture} part={part} onPick={rest.onPick} picked={rest.picked} marked={marked} onMark={onMark} />
      ))}
      <Refused gesture={gesture} kinds={["bay", "insert", "remove", "even"]} />
    </section>
  );
}

type AxisProps = Pick<LensProps, "style" | "gesture" | "onPick" | "picked" | "marked" | "onMark"> & { axis: number; all: Stood[]; sizes: Size[]; part: string };

function Axis({ axis, all, sizes, style, gesture, part, onPick, marked, onMark }: AxisProps) {
  const own = all.filter((s) => !s.copied);
  const first = own[0];
  const last = own.at(-1);
  if (!first || !last) return null;
  return (
    <div className="mt-2">
      <div className="flex items-center justify-between gap-2">
        <h3 className="text-base">{axisWords[axis]}</h3>
        {own.length > 2 && (
          <button type="button" className="btn btn-small" title={`Spread everything between ${first.id} and ${last.id} evenly`} onClick={() => void gesture.run({ even: { in: part || undefined, axis, from: first.id, to: last.id } }, { keep: true })}>
            Even out
          </button>
        )}
      </div>
      <ol className="stations">
        {all.map((s, i) => (
          <Row key={s.id} axis={axis} s={s} before={all[i - 1]} after={all[i + 1]} size={sizes.find((z) => z.path === s.by)} style={style} gesture={gesture} part={part} onPick={onPick} alone={own.length < 2} />
        ))}
      </ol>
      <Another axis={axis} own={own} last={last} gesture={gesture} part={part} marked={marked} onMark={onMark} />
    </div>
  );
}

/** Another column or level, like one that is there, so far beyond the last. Pipes run to it from the joints that are marked, or as in the last bay. */
function Another({ axis, own, last, gesture, part, marked, onMark }: Pick<AxisProps, "axis" | "gesture" | "part" | "marked" | "onMark"> & { own: Stood[]; last: Stood }) {
  const [like, setLike] = useState("");
  const chosen = own.find((s) => s.id === like) ?? last;
  const run = async (length: string) => {
    const done = await gesture.run({ insert: { in: part || undefined, axis, after: last.id, like: chosen.id, length: length || undefined, rails: marked.length > 0 ? marked : undefined } }, { keep: true });
    if (done) onMark([]);
    return done;
  };
  return (
    <div className="flex flex-wrap items-start gap-2">
      <div className="min-w-64 flex-1">
        <LineField
          label={`Another like ${chosen.id}`}
          placeholder={own.length > 1 ? "as far as the last" : "46 clear"}
          press="Add"
          mayBeEmpty={own.length > 1}
          onRun={run}
          note={marked.length > 0 ? `beyond ${last.id}, with a pipe from each marked joint` : own.length > 1 ? `beyond ${last.id}, joined as in the last bay` : `beyond ${last.id}; mark the joints from which pipes are to run`}
        />
      </div>
      {own.length > 1 && <Pick label={`Like which station, ${axisWords[axis]}`} className="w-24" value={chosen.id} options={own.map((s) => [s.id, s.id] as const)} onChange={setLike} />}
    </div>
  );
}

function Row({ axis, s, before, after, size, style, gesture, part, alone }: Pick<AxisProps, "axis" | "style" | "gesture" | "part" | "onPick"> & { s: Stood; before?: Stood; after?: Stood; size?: Size; alone: boolean }) {
  const from = size?.from === before?.id ? size : undefined;
  const own = part || undefined;
  const told = s.split?.length ? `even, between ${s.split[0]} and ${s.split[1]}` : s.like ? `as ${["wide", "deep", "high"][{ x: 0, y: 1, z: 2 }[s.like] ?? 0]} as it is` : s.copied ? "a copy" : size && !from ? `${text(size.value, style, 64)} ${meaning(size.meaning)} from ${size.from}` : "";
  return (
    <li className="station" data-station={s.id}>
      {before && (
        <span className="station-bay">
          <BayField axis={axis} station={s} before={before} said={from} style={style} gesture={gesture} part={part} />
          {told && <span className="text-xs text-ink-2">{told}</span>}
        </span>
      )}
      <span className="station-name">
        <span className="station-mark" aria-hidden="true" />
        <strong>{s.id}</strong>
        <span className="text-sm text-ink-2">{plural(s.joints, "joint")}</span>
        {!s.copied && (
          <DropdownMenu.Root modal={false}>
            <DropdownMenu.Trigger className="icon-btn icon-small ml-auto" aria-label={`More for station ${s.id}`}>
              <Icon name="more" size={18} />
            </DropdownMenu.Trigger>
            <DropdownMenu.Portal>
              <DropdownMenu.Content align="end" sideOffset={2} collisionPadding={8} className="menu" aria-label={`Station ${s.id}`}>
                <DropdownMenu.Item className="menu-item" onSelect={() => void gesture.run({ insert: { in: own, axis, after: s.id, like: s.id } }, { keep: true })}>
                  {after ? "Another like it, half-way to the next" : "Another bay like the last"}
                </DropdownMenu.Item>
                {after && (
                  <DropdownMenu.Item className="menu-item" onSelect={() => void gesture.run({ insert: { in: own, axis, after: s.id, split: true } }, { keep: true })}>
                    A tee half-way in every pipe to the next
                  </DropdownMenu.Item>
                )}
                {!alone && (
                  <DropdownMenu.Item className="menu-item" onSelect={() => void gesture.run({ remove: { in: own, axis, station: s.id } })}>
                    Take it away with what stands on it
                  </DropdownMenu.Item>
                )}
              </DropdownMenu.Content>
            </DropdownMenu.Portal>
          </DropdownMenu.Root>
        )}
      </span>
    </li>
  );
}

/** The room between two stations, typed as "46 clear". */
function BayField({ axis, station, before, said, style, gesture, part }: { axis: number; station: Stood; before: Stood; said?: Size; style: Style; gesture: LensProps["gesture"]; part: string }) {
  const id = useId();
  const shown = said ? `${text(said.value, style, 64)} ${short[said.meaning] ?? said.meaning}` : `${text(station.at - before.at, style, 64)} centre`;
  const [typed, setTyped] = useState<string>();
  const save = async () => {
    if (typed === undefined || typed.trim() === "" || typed === shown) {
      setTyped(undefined);
      return;
    }
    if (await gesture.run({ bay: { in: part || undefined, axis, station: station.id, length: typed.replaceAll("″", '"').replaceAll("′", "'").replaceAll("⁄", "/") } }, { keep: true })) setTyped(undefined);
  };
  return (
    <>
      <label htmlFor={id} className="sr-only">
        From {before.id} to {station.id}
      </label>
      <input
        id={id}
        className="field station-field"
        value={typed ?? shown}
        autoComplete="off"
        spellCheck={false}
        disabled={station.copied}
        onFocus={(e) => e.target.select()}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => void save()}
        onKeyDown={(e) => {
          if (e.key === "Enter") void save();
          else if (e.key === "Escape") setTyped(undefined);
          else return;
          e.preventDefault();
          e.stopPropagation();
        }}
      />
      <span className="text-xs whitespace-nowrap text-ink-2">
        c-c <Len nm={station.at - before.at} style={style} step={32} />
      </span>
    </>
  );
}

const short: Record<string, string> = { centre: "centre", outside: "outside", clear: "clear", "top-of-pipe": "top", "top-of-cap": "cap", slot: "slot", visible: "visible", cut: "cut" };
