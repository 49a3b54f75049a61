import { describe, expect, it } from "vitest";
import type { Finding, PlanFrame } from "../api/client";
import { findingTags } from "./paint";

const joint = (id: string) => ({ id, at: [0, 0, 0] });
const frame = { pipes: [], joints: [joint("j1"), joint("j2"), joint("j3")] } as unknown as PlanFrame;
const finding = (code: string, id: string, severity = "stop") =>
  ({ code, severity, text: `${code} at ${id}`, frame: 0, subjects: [{ kind: "joint", id }] }) as unknown as Finding;
const keys = (all: Finding[]) => new Map(findingTags(all, frame, 0).map((t) => [t.title, t.key]));

describe("the pins of findings", () => {
  it("are the same pins when findings before them come and go: an open note stays with what it says", () => {
    const before = keys([finding("overlap", "j1"), finding("hovers", "j2"), finding("overlap", "j3")]);
    const after = keys([finding("overlap", "j3"), finding("hovers", "j2")]);
    for (const [title, key] of after) expect(key).toBe(before.get(title));
  });

  it("are one each, though several say the same of one joint", () => {
    const all = findingTags([finding("overlap", "j1"), finding("overlap", "j1"), finding("overlap", "j2")], frame, 0);
    expect(new Set(all.map((t) => t.key)).size).toBe(3);
  });

  it("tell once what is no stop", () => {
    expect(findingTags([finding("hovers", "j1", "note"), finding("hovers", "j1", "note")], frame, 0)).toHaveLength(1);
  });
});
