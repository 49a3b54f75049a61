import type { PlanFrame } from "../../api/client";
import { type Mode, tally } from "../../desk/mode-rules";
import { Len, type Style, isShown, plural } from "../../lib/format";
import { kindWords, modeWords, sizeWords } from "../../lib/words";
import { Picture } from "../../ui/picture";
import { Pick } from "../../ui/pick";
import { HowHeld } from "../../ui/segment";
import { Head } from "../../ui/ui";
import { Why } from "../../ui/why";
import { setHold } from "./actions";
import { Measured } from "./measured";
import { useDesk, useFrame, usePicked, usePlan, useProject, useStyle } from "../../desk/use";

type Insertion = PlanFrame["insertions"][number];

const inUse = (joint: string, path: string) => joint.startsWith(`${path}/`) || joint.startsWith(`${path}#`);

/** What stays dry? For all, a kind, a group, or the joint that is picked. */
export default function JointsSheet() {
  const desk = useDesk();
  const project = useProject();
  const plan = usePlan();
  const frame = useFrame();
  const [picked] = usePicked();
  const all = tally(frame);
  return (
    <>
      <section aria-labelledby="joint-head">
        <Head id="joint-head" title="What stays dry?">
          <span className="text-sm text-ink-2 max-sm:hidden">press a ring on the frame, or here</span>
        </Head>
        <div className="flex flex-wrap items-center justify-between gap-x-6 gap-y-2">
          <p className="flex gap-5 font-display text-2xl font-semibold">
            <span className="flex items-center gap-2">
              <span className="collar-mark big" aria-hidden="true" /> {plan.totals.cemented}{" "}
              <span className="font-sans text-base font-normal">cemented</span>
            </span>
            <span className="flex items-center gap-2">
              <span className="ring-mark big" aria-hidden="true" /> {plan.totals.dry}{" "}
              <span className="font-sans text-base font-normal">dry</span>
            </span>
          </p>
          {(project.modeRules?.length ?? 0) > 0 && (
            <button
              type="button"
              className="btn btn-small"
              onClick={() => desk.edit("Joints as they began", (p) => ({ ...p, modeRules: [] }))}
            >
              As they began
            </button>
          )}
        </div>
        {plan.joinery.cemented > 0 && (
          <p className="mt-1 text-sm text-ink-2">
            About {plan.joinery.cement.ounces.toFixed(1)} fl oz of cement and {plan.joinery.primer.ounces.toFixed(1)} of primer. The can's
            label wins.
          </p>
        )}
        {picked && <PickedJoints />}
        <ul className="mt-3" aria-label="Joints by kind and group">
          <Row
            name="The whole frame"
            count={plural(frame.joints.filter((j) => j.kind).length, "fitting")}
            tally={all}
            onSet={(m) => setHold(desk, "All joints", {}, m)}
          />
          <Kinds />
          <Groups />
        </ul>
      </section>
      <DrySize frame={frame} style={useStyle()} />
      <Measured />
    </>
  );
}

function Row({
  name,
  count,
  picture,
  tally: t,
  inner,
  onSet,
}: {
  name: string;
  count: string;
  picture?: string;
  tally: { cemented: number; dry: number };
  inner?: boolean;
  onSet: (m: Mode) => void;
}) {
  if (t.cemented + t.dry === 0) return null;
  return (
    <li className={`flex items-center gap-3 border-b border-rule py-1.5 ${inner ? "pl-6" : ""}`}>
      {picture && <Picture kind={picture} size={38} />}
      <span className="min-w-0 flex-1">
        <strong className="font-semibold">{name}</strong>
        <span className="ml-2 text-sm text-ink-2">{count}</span>
      </span>
      <HowHeld of={name} tally={t} onSet={onSet} />
    </li>
  );
}

function Kinds() {
  const desk = useDesk();
  const frame = useFrame();
  const kinds = new Map<string, Set<string>>();
  for (const j of frame.joints) if (j.kind) kinds.set(j.kind, (kinds.get(j.kind) ?? new Set()).add(j.id));
  if (kinds.size < 2) return null;
  return [...kinds].map(([kind, ids]) => (
    <Row
      key={kind}
      name={`Every ${kindWords(kind)}`}
      picture={kind}
      count={`${ids.size} of them`}
      tally={tally(frame, (i) => ids.has(i.joint))}
      onSet={(m) => setHold(desk, `Every ${kind}`, { kind }, m)}
    />
  ));
}

function Groups() {
  const desk = useDesk();
  const frame = useFrame();
  const groups = new Map<string, { name: string; uses: string[] }>();
  for (const p of frame.instances) {
    const g = groups.get(p.group) ?? { name: p.name, uses: [] };
    g.uses.push(p.path);
    groups.set(p.group, g);
  }
  return [...groups].flatMap(([group, g]) => [
    <Row
      key={group}
      name={`Every ${g.name.toLowerCase()}`}
      count={plural(g.uses.length, "group")}
      tally={tally(frame, (i) => g.uses.some((u) => inUse(i.joint, u)))}
      onSet={(m) => setHold(desk, `Every ${g.name.toLowerCase()}`, { group }, m)}
    />,
    ...(g.uses.length > 1 && g.uses.length <= 12
      ? g.uses.map((u) => (
          <Row
            key={u}
            inner
            name={u}
            count=""
            tally={tally(frame, (i) => inUse(i.joint, u))}
            onSet={(m) => setHold(desk, u, { use: u }, m)}
          />
        ))
      : []),
  ]);
}

const modes = [
  ["cemented", "Cemented", "one body for good"],
  ["slip", "Dry, driven", "holds by friction, comes apart with a mallet"],
  ["eased", "Dry, eased", "sanded, lifts off by hand"],
  ["pinned", "Pinned", "driven, with a screw or bolt through"],
] as const;

/** The insertions of the joint or the pipe that is picked, one by one. */
function PickedJoints() {
  const desk = useDesk();
  const frame = useFrame();
  const [picked] = usePicked();
  const some = frame.insertions.filter(
    (i) => i.pipe && (picked?.is === "joint" ? i.joint === picked.id : picked?.is === "pipe" && i.spigot === picked.id),
  );
  if (some.length === 0) return null;
  const joint = picked?.is === "joint" ? frame.joints.find((j) => j.id === picked.id) : undefined;
  const letter = (pipe: string) => frame.pipes.find((p) => p.pipe === pipe)?.letter ?? "";
  return (
    <div className="mt-3 rounded-md border-2 border-ink p-2" aria-live="polite">
      <div className="flex items-center gap-3">
        {joint && <Picture kind={joint.kind} size={38} />}
        <h3 className="flex-1 text-base">
          {joint ? `${sizeWords(joint.size)} ${kindWords(joint.kind)}, ${joint.name}` : `Both ends of ${letter(picked?.id ?? "")}`}
        </h3>
        {joint && (
          <HowHeld
            of="This joint"
            tally={tally(frame, (i) => i.joint === joint.id)}
            onSet={(m) => setHold(desk, joint.id, { joint: joint.id }, m)}
          />
        )}
      </div>
      <ul className="long">
        {some.map((i) => (
          <li key={i.id} className="flex items-center gap-2 border-t border-rule py-1">
            <span className={i.mode === "cemented" ? "collar-mark" : "ring-mark"} aria-hidden="true" />
            <span className="min-w-0 flex-1 text-sm">
              <strong>{letter(i.spigot)}</strong> in {i.joint}
              <span className="block text-xs text-ink-2">{reason(i)}</span>
            </span>
            <Pick
              label={`How ${letter(i.spigot)} is held at ${i.joint}`}
              className="w-36"
              value={i.mode}
              options={modes}
              onChange={(m) => setHold(desk, `${letter(i.spigot)} at ${i.joint}`, { joint: i.joint, pipe: i.spigot }, m as Mode)}
            />
          </li>
        ))}
      </ul>
    </div>
  );
}

const reason = (i: Insertion) => `${modeWords(i.mode)}: ${i.reason}`;

/** Dry-fitted against finished: why the frame shrinks when it is cemented. */
function DrySize({ frame, style }: { frame: PlanFrame; style: Style }) {
  const planned = frame.overall.map((e) => e.size);
  const lead = frame.seated[0];
  const grows = lead ? Math.max(...lead.size.map((v, i) => v - (planned[i] ?? 0))) : 0;
  return (
    <section aria-labelledby="dry-head">
      <Head id="dry-head" title="Dry-fitted and finished" />
      {grows > 0 && isShown(grows, style) && (
        <p className="mb-1 text-sm">
          Put together by hand it measures up to{" "}
          <strong>
            <Len nm={grows} style={style} step={16} /> more
          </strong>{" "}
          than when it is finished. That is as it should be: sockets taper.
        </p>
      )}
      <table className="w-full text-sm">
        <thead>
          <tr className="text-ink-2">
            <th scope="col" className="text-left font-normal">
              Outside size
            </th>
            {["wide", "deep", "high"].map((x) => (
              <th key={x} scope="col" className="text-right font-normal">
                {x}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {frame.seated.map((s) => (
            <tr key={s.state} className="border-t border-rule align-top">
              <th scope="row" className="py-1.5 pr-2 text-left font-normal">
                {s.text}
              </th>
              {s.size.map((v, i) => {
                const more = v - (planned[i] ?? 0);
                return (
                  <td key={i} className="py-1.5 text-right">
                    <Len nm={v} style={style} />
                    {isShown(more, style, 32) && (
                      <span className="block text-xs text-ink-2">
                        {more > 0 ? "+" : "−"}
                        <Len nm={Math.abs(more)} style={style} step={32} />
                      </span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
          <tr className="border-t-2 border-ink text-base font-bold">
            <th scope="row" className="py-1 text-left">
              planned
            </th>
            {frame.overall.map((e) => (
              <td key={e.axis} className="text-right">
                <Why
                  label={`Outside size, ${["wide", "deep", "high"][e.axis]}`}
                  sum={e.sum}
                  total={e.size}
                  of={<Len nm={e.size} style={style} />}
                />
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </section>
  );
}
