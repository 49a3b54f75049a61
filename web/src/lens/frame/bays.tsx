import { meaning } from "../../lib/words";
import { DropdownMenu } from "radix-ui";
import { useId, useRef, useState } from "react";
import type { Size } from "../../api/client";
import { type Mark, marksOf } from "../../frame/marks";
import { Len, plural, text } from "../../lib/format";
import { Sending } from "../../lib/sending";
import { Icon } from "../../ui/icons";
import { Pick } from "../../ui/pick";
import { Drawer } from "../../ui/drawer";
import { LineField } from "./line-field";
import { Refused, Sorry } from "../refused";
import { useFrame, useMarked, useNames, useRefusedAt, useRun, useStyle, useTyped } from "../../desk/use";
import { Menu } from "../../ui/menu";

const axisWords = ["Across, left to right", "In depth, near to away", "In height, from below"];

/** Where the joints of the frame, or of a part, stand along its three axes, with the bays between. */
export function Bays({ part, onPart }: { part: string; onPart: (p: string) => void }) {
  const frame = useFrame();
  const place = frame.places.find((p) => p.path === part);
  if (!place) return null;
  const scopes = frame.places.filter((p, i) => frame.places.findIndex((q) => q.group === p.group) === i);
  return (
    <Drawer
      id="bays"
      title="Rulers and bays"
      begin
      told={axisWords.map((_, axis) => marksOf(place, axis).length).join(" × ")}
      action={
        scopes.length > 1 && (
          <Pick
            label="Whose bays"
            value={part}
            options={scopes.map(
              (p) =>
                [p.path, p.path === "" ? "the frame" : `every ${frame.instances.find((x) => x.path === p.path)?.name ?? p.group}`] as const,
            )}
            onChange={onPart}
          />
        )
      }
    >
      {axisWords.map((words, axis) => (
        <Axis key={words} axis={axis} all={marksOf(place, axis)} sizes={frame.sizes} part={part} />
      ))}
      <Between />
      <Refused kinds={["bay", "insert", "remove", "even", "level", "name", "size"]} />
    </Drawer>
  );
}

/** A size between two joints that are marked. */
function Between() {
  const frame = useFrame();
  const [marked] = useMarked();
  const names = useNames();
  const [a, b] = marked.filter((m) => frame.joints.some((j) => j.id === m));
  if (marked.length !== 2 || !a || !b) return null;
  return (
    <LineField
      label={`${names.short(a)} to ${names.short(b)}`}
      placeholder="48 outside"
      press="Set"
      keep
      edit={(t) => ({ size: { ends: [a, b], length: t } })}
      note="what it contradicts is asked about"
    />
  );
}

interface AxisProps {
  axis: number;
  all: Mark[];
  sizes: Size[];
  part: string;
}

function Axis({ axis, all, sizes, part }: AxisProps) {
  const gesture = useRun();
  const own = all.filter((m) => !m.copied);
  const first = own[0];
  const last = own.at(-1);
  if (!first || !last) return null;
  return (
    <div className="mt-2">
      <div className="flex items-center justify-between gap-2">
        <h3 className="text-base">{axisWords[axis]}</h3>
        {own.length > 2 && (
          <button
            type="button"
            className="btn btn-small"
            title={`Spread everything between ${first.name} and ${last.name} evenly`}
            onClick={() =>
              void gesture.run(
                {
                  even: {
                    in: part || undefined,
                    axis,
                    from: first.key,
                    to: last.key,
                  },
                },
                { keep: true },
              )
            }
          >
            Even out
          </button>
        )}
      </div>
      <ol className="marks long">
        {all.map((m, i) => (
          <Row key={m.key} axis={axis} m={m} before={all[i - 1]} after={all[i + 1]} sizes={sizes} part={part} alone={own.length < 2} />
        ))}
      </ol>
      <Another axis={axis} own={own} last={last} part={part} />
    </div>
  );
}

/** Another column or level, like one that is there, so far beyond the last. Pipes run to it from the joints that are marked, or as in the last bay. */
function Another({ axis, own, last, part }: { axis: number; own: Mark[]; last: Mark; part: string }) {
  const [marked, onMark] = useMarked();
  const [like, setLike] = useState("");
  const chosen = own.find((m) => m.key === like) ?? last;
  return (
    <div className="flex flex-wrap items-start gap-2">
      <div className="min-w-64 flex-1">
        <LineField
          label={`Another like ${chosen.name}`}
          placeholder={own.length > 1 ? "as far as the last" : "46 clear"}
          press="Add"
          mayBeEmpty={own.length > 1}
          keep
          edit={(length) => ({
            insert: {
              in: part || undefined,
              axis,
              after: last.key,
              like: chosen.key,
              length: length || undefined,
              rails: marked.length > 0 ? marked : undefined,
            },
          })}
          onDone={() => onMark([])}
          note={
            marked.length > 0
              ? `beyond ${last.name}, with a pipe from each marked joint`
              : own.length > 1
                ? `beyond ${last.name}, joined as in the last bay`
                : `beyond ${last.name}; mark the joints from which pipes are to run`
          }
        />
      </div>
      {own.length > 1 && (
        <Pick
          label={`Like which, ${axisWords[axis]}`}
          className="w-24"
          value={chosen.key}
          options={own.map((m) => [m.key, m.name] as const)}
          onChange={setLike}
        />
      )}
    </div>
  );
}

const sizeOf = (sizes: Size[], m: Mark, before?: Mark) => {
  for (const p of m.planes) {
    const z = sizes.find((s) => s.id === p.size);
    if (z && before?.planes.some((b) => b.ref === p.from)) return { direct: z };
    if (z) return { other: z };
  }
  return {};
};

function Row({
  axis,
  m,
  before,
  after,
  sizes,
  part,
  alone,
}: Pick<AxisProps, "axis" | "part" | "sizes"> & { m: Mark; before?: Mark; after?: Mark; alone: boolean }) {
  const style = useStyle();
  const gesture = useRun();
  const names = useNames();
  const { direct, other } = sizeOf(sizes, m, before);
  const [naming, setNaming] = useState(false);
  const own = part || undefined;
  const even = m.planes.find((p) => p.even?.length)?.even?.map((r) => r.replace(/^=/, ""));
  const like = m.planes.find((p) => p.equalAxis)?.equalAxis;
  const told = even
    ? `even, between ${even[0]} and ${even[1]}`
    : like
      ? `as ${{ x: "wide", y: "deep", z: "high" }[like] ?? "wide"} as it is`
      : m.copied
        ? "a copy"
        : other && !direct
          ? `${text(other.value, style, 64)} ${meaning(other.meaning)} from ${names.short(other.from)}`
          : direct?.inferred
            ? "as it stood"
            : "";
  const joints = m.planes.reduce((n, p) => n + p.joints.length, 0);
  return (
    <li className="mark-row" data-plane={m.key}>
      {before && (
        <span className="mark-bay">
          <BayField axis={axis} mark={m} before={before} said={direct} part={part} />
          {told && <span className="text-xs text-ink-2">{told}</span>}
        </span>
      )}
      <span className="mark-name">
        <span className="mark-point" aria-hidden="true" />
        <strong>{m.name}</strong>
        <span className="text-xs text-ink-2" title="What it is called in a line">
          {["x", "y", "z"][axis]}
          {m.planes[0]?.mark}
        </span>
        <span className="text-sm text-ink-2">{plural(joints, "joint")}</span>
        {!m.copied && (
          <DropdownMenu.Root modal={false}>
            <DropdownMenu.Trigger className="icon-btn icon-small ml-auto" aria-label={`More for ${m.name}, ${axisWords[axis]}`}>
              <Icon name="more" size={18} />
            </DropdownMenu.Trigger>
            <Menu align="end" onCloseAutoFocus={(e) => naming && e.preventDefault()} aria-label={`What stands at ${m.name}`}>
              <DropdownMenu.Item
                className="menu-item"
                onSelect={() => void gesture.run({ insert: { in: own, axis, after: m.key, like: m.key } }, { keep: true })}
              >
                {after ? "Another like it, half-way to the next" : "Another bay like the last"}
              </DropdownMenu.Item>
              {after && (
                <DropdownMenu.Item
                  className="menu-item"
                  onSelect={() =>
                    void gesture.run(
                      {
                        insert: { in: own, axis, after: m.key, split: true },
                      },
                      { keep: true },
                    )
                  }
                >
                  A tee half-way in every pipe to the next
                </DropdownMenu.Item>
              )}
              <DropdownMenu.Item className="menu-item" onSelect={() => setNaming(true)}>
                {m.key.startsWith("=") ? "Give it another name" : "Give it a name"}
              </DropdownMenu.Item>
              {!alone && (
                <DropdownMenu.Item
                  className="menu-item"
                  onSelect={() =>
                    void gesture.run({
                      remove: { in: own, axis, plane: m.key },
                    })
                  }
                >
                  Take it away with what stands on it
                </DropdownMenu.Item>
              )}
            </Menu>
          </DropdownMenu.Root>
        )}
      </span>
      {naming && (
        <LineField
          label={`What ${m.name} is called`}
          placeholder="shelf"
          press="Name it"
          note="what is level with it stays level; up to =shelf runs a pipe that far"
          keep
          takesFocus
          edit={(name) => ({ name: { in: own, axis, plane: m.key, name } })}
          onDone={() => setNaming(false)}
          onLeave={() => setNaming(false)}
        />
      )}
      {m.planes.slice(1).map((p) => (
        <span key={p.ref} className="mark-also">
          {p.name} only happens to stand there
          <button
            type="button"
            className="btn btn-small"
            onClick={() => void gesture.run({ level: { in: own, axis, of: p.ref, to: m.key } }, { keep: true })}
          >
            Keep them level
          </button>
        </span>
      ))}
    </li>
  );
}

/** The room between two marks, typed as "46 clear". */
function BayField({ axis, mark, before, said, part }: { axis: number; mark: Mark; before: Mark; said?: Size; part: string }) {
  const style = useStyle();
  const gesture = useRun();
  const id = useId();
  const shown = said
    ? `${text(said.out, style, 64)} ${short[said.meaning] ?? said.meaning}`
    : `${text(mark.at - before.at, style, 64)} centre`;
  const { typed, setTyped, taken, take } = useTyped();
  const refused = useRefusedAt(id);
  const why = typed !== undefined ? refused : undefined;
  const sending = useRef(new Sending()).current;
  const save = async () => {
    if (typed === undefined || typed.trim() === "" || typed === shown) {
      setTyped(undefined);
      return;
    }
    if (typed === taken) return;
    const length = typed.replaceAll("″", '"').replaceAll("′", "'").replaceAll("⁄", "/");
    const done = await sending.send(typed, () =>
      gesture.run({ bay: { in: part || undefined, axis, plane: mark.key, length } }, { keep: true, at: id }),
    );
    if (done) take(typed);
  };
  return (
    <>
      <label htmlFor={id} className="sr-only">
        From {before.name} to {mark.name}
      </label>
      <input
        id={id}
        className="field mark-field"
        value={typed ?? shown}
        autoComplete="off"
        spellCheck={false}
        disabled={mark.copied}
        aria-invalid={why !== undefined}
        aria-describedby={why && `${id}-why`}
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
        c-c <Len nm={mark.at - before.at} style={style} />
      </span>
      {why && <Sorry id={`${id}-why`} what={why} />}
    </>
  );
}

const short: Record<string, string> = {
  centre: "centre",
  outside: "outside",
  clear: "clear",
  "top-of-pipe": "top",
  "top-of-cap": "cap",
  slot: "slot",
  visible: "visible",
  cut: "cut",
};
