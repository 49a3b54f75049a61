import { describe, expect, it } from "vitest";
import type { Plan, Project, Size } from "../../api/client";
import { type Target, meaningsOf, targetsOf } from "./targets";

const IN = 25_400_000;
const size = (path: string, more: Partial<Size> = {}) =>
  ({
    id: path,
    label: "",
    axis: 0,
    from: "a",
    to: "b",
    value: 10 * IN,
    text: "10",
    meaning: "centre",
    centre: 10 * IN,
    sum: [],
    also: [],
    span: [0, 0],
    scope: "",
    ...more,
  }) as unknown as Size;
const planOf = (...sizes: Size[]) => ({ frames: [{ sizes, joints: [{ id: "post#2/a", name: "j7" }] }] }) as unknown as Plan;
const project = (more: Partial<Project> = {}) => ({ name: "", units: "in", style: "inches", copies: 1, tool: "saw", ...more }) as Project;

describe("what the builder states about a frame", () => {
  it("names a size by its label, else by the joints it runs between, as the frame names them, and along what", () => {
    const all = targetsOf(
      project(),
      undefined,
      planOf(size("/1", { label: "Width" }), size("/2", { axis: 2 }), size("/3", { axis: -1 }), size("/4", { from: "post#2/a" })),
      {},
    );
    expect(all.map((t) => t.label)).toEqual(["Width", "a → b, high", "a → b, along the slope", "j7 → b, wide"]);
  });

  it("puts what an own starter asks for first, in its order, with its words and reason", () => {
    const asks = {
      about: "",
      prompts: [
        { size: "/3", label: "Shelf", why: "as deep as the box" },
        { size: "/1", label: "" },
      ],
    };
    const all = targetsOf(
      project({ asks }),
      undefined,
      planOf(size("/1", { label: "Width" }), size("/2", { label: "Height" }), size("/3")),
      {},
    );
    expect(all.map((t) => t.key)).toEqual(["/3", "/1", "/2"]);
    expect(all[0]?.label).toBe("Shelf");
    expect(all[0]?.prompt.why).toBe("as deep as the box");
    expect(all[1]?.label).toBe("Width");
  });

  it("shows what was typed over a size, and sets it without touching others", () => {
    const p = project({ sizes: { "/1": { text: "4 ft" } } });
    const [one, two] = targetsOf(p, undefined, planOf(size("/1"), size("/2")), { "/project/sizes/~12": "no" });
    expect(one?.answer.text).toBe("4 ft");
    expect(two?.error).toBe("no");
    expect(two?.set(p, { text: "7" }).sizes).toEqual({ "/1": { text: "4 ft" }, "/2": { text: "7" } });
    expect(p.sizes).toEqual({ "/1": { text: "4 ft" } });
  });

  it("keeps what was typed in reach when nothing can be planned", () => {
    const all = targetsOf(project({ sizes: { "/9": { text: "wide" } } }), undefined, undefined, { "/project/sizes/~19": "not a length" });
    expect(all).toHaveLength(1);
    expect(all[0]).toMatchObject({ key: "/9", answer: { text: "wide" }, error: "not a length" });
  });

  it("shows the sizes typed by hand beside a starter's prompts, and none that the starter has for itself", () => {
    const starters = [
      { id: "jump", prompts: [{ key: "width", label: "Width", input: "length", default: "48", meanings: ["clear"], why: "" }] },
    ] as never;
    const p = project({ starter: { id: "jump", answers: { width: { text: "72", meaning: "cut", of: "tie" } } }, frame: {} as never });
    const all = targetsOf(
      p,
      starters,
      planOf(size("width", { prompt: "width", starters: true }), size("overhang", { starters: true }), size("s1", { pipe: "p9" })),
      {},
    );
    expect(all.map((t) => t.key)).toEqual(["width", "s1"]);
    expect(meaningsOf(all[0] as Target).map(([m]) => m)).toEqual(["clear", "cut"]);
    expect(all[1]?.set(p, { text: "9" })).toMatchObject({ sizes: { s1: { text: "9" } }, starter: p.starter });
  });

  it("keeps the counts of a starter whose frame is the builder's own, with how many there are", () => {
    const p = project({
      starter: { id: "screen", own: true, answers: { bays: { text: "3" }, width: { text: "96" } } },
      frame: {} as never,
    });
    const [bays, width] = targetsOf(p, undefined, planOf(size("width", { prompt: "width", label: "Width" })), {}, [
      { key: "bays", label: "Bays", why: "", count: 2, gone: 1, least: 1, most: 24 },
    ]);
    expect(bays?.answer.text).toBe("2");
    expect(bays?.set(p, { text: "4" }).starter?.answers.bays?.text).toBe("5");
    expect(bays?.set(p, { text: "four" }).starter?.answers.bays?.text).toBe("four");
    expect(width?.set(p, { text: "90" }).sizes).toEqual({ width: { text: "90" } });
  });

  it("asks a starter's prompts, with what was answered or the default", () => {
    const starters = [
      {
        id: "jump",
        prompts: [
          { key: "width", label: "Width", input: "length", default: "48", meanings: ["clear"], why: "" },
          { key: "bar", label: "Bar", input: "length", default: "20", why: "" },
        ],
      },
    ] as never;
    const p = project({ starter: { id: "jump", answers: { bar: { text: "12" } } } });
    const all = targetsOf(p, starters, planOf(size("/1", { prompt: "bar" })), {});
    expect(all.map((t) => t.answer.text)).toEqual(["48", "12"]);
    expect(all[1]?.sized?.id).toBe("/1");
    expect(all[0]?.set(p, { text: "50" }).starter?.answers).toEqual({ bar: { text: "12" }, width: { text: "50" } });
  });
});
