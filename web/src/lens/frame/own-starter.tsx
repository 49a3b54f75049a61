import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Refusal, api, ask } from "../../api/client";
import { text } from "../../lib/format";
import { intoView } from "../../lib/in-view";
import { Drawer } from "../../ui/drawer";
import { useFrame, useNames, useProject, useShop, useStyle } from "../../desk/use";

/** Saves the frame as a starter of the builder's own: which sizes it asks for, how they are called, and why. */
export function OwnStarter() {
  const project = useProject();
  const shop = useShop();
  const frame = useFrame();
  const style = useStyle();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const [about, setAbout] = useState("");
  const [asked, setAsked] = useState<Record<string, { on: boolean; label: string; why: string }>>({});
  const [said, setSaid] = useState<{ good: boolean; text: string }>();
  const client = useQueryClient();
  const names = useNames();
  const sizes = frame.sizes;
  const of = (path: string, label: string) =>
    asked[path] ?? { on: project.asks?.prompts.some((a) => a.size === path) ?? false, label, why: "" };
  const save = async () => {
    try {
      const kept = await ask(api.POST("/api/edit", { body: { project, shop, edit: { keep: {} } } }));
      const prompts = sizes.flatMap((s) => {
        const a = of(s.id, s.label);
        return a.on ? [{ size: s.id, label: a.label || `${names.short(s.from)} to ${names.short(s.to)}`, why: a.why }] : [];
      });
      await ask(
        api.POST("/api/projects", {
          body: {
            ...kept.project,
            name: name.trim() || project.name,
            template: true,
            asks: { about: about.trim(), prompts },
            given: undefined,
            described: undefined,
          },
        }),
      );
      await client.invalidateQueries({ queryKey: ["starters"] });
      setSaid({ good: true, text: "Saved. It is among the starters, marked as yours." });
      setOpen(false);
    } catch (e) {
      setSaid({ good: false, text: e instanceof Refusal ? e.message : "The server does not answer. Nothing was saved." });
    }
  };
  return (
    <Drawer
      id="own-starter"
      title="Begin others like it"
      force={open || said !== undefined}
      action={
        <button type="button" className="btn btn-small" aria-expanded={open} onClick={() => setOpen(!open)}>
          Save as a starter
        </button>
      }
    >
      {said && (
        <p role="status" className={`text-sm font-semibold ${said.good ? "font-bold" : "text-bad"}`}>
          {said.text}
        </p>
      )}
      {open && (
        <form
          ref={intoView}
          className="trial grid gap-1.5"
          onSubmit={(e) => {
            e.preventDefault();
            void save();
          }}
        >
          <label className="flex items-center justify-between gap-2 text-sm">
            Called
            <input
              className="field w-60"
              value={name}
              placeholder={project.name}
              autoComplete="off"
              onChange={(e) => setName(e.target.value)}
            />
          </label>
          <label className="flex items-center justify-between gap-2 text-sm">
            In a line
            <input
              className="field w-60"
              value={about}
              placeholder="what it is for"
              autoComplete="off"
              onChange={(e) => setAbout(e.target.value)}
            />
          </label>
          <fieldset className="mt-1 grid gap-1.5">
            <legend className="text-sm font-semibold">It asks for</legend>
            {sizes.map((s) => {
              const a = of(s.id, s.label);
              const set = (change: Partial<typeof a>) => setAsked({ ...asked, [s.id]: { ...a, ...change } });
              return (
                <div key={s.id} className="flex flex-wrap items-center gap-2 text-sm">
                  <label className="flex min-w-40 items-center gap-1.5">
                    <input type="checkbox" className="box" checked={a.on} onChange={(e) => set({ on: e.target.checked })} />
                    {s.label || `${names.short(s.from)} to ${names.short(s.to)}`}, {text(s.value, style, 16)}
                  </label>
                  {a.on &&
                    (
                      [
                        ["label", "How", "Width", "w-32"],
                        ["why", "Why", "why so large", "min-w-32 flex-1"],
                      ] as const
                    ).map(([key, word, hint, wide]) => (
                      <input
                        key={key}
                        className={`field ${wide}`}
                        aria-label={`${word} ${s.label || names.short(s.to)} is asked for`}
                        value={a[key]}
                        placeholder={hint}
                        autoComplete="off"
                        onChange={(e) => set({ [key]: e.target.value })}
                      />
                    ))}
                </div>
              );
            })}
          </fieldset>
          <button type="submit" className="btn btn-small justify-self-start">
            Save it
          </button>
        </form>
      )}
    </Drawer>
  );
}
