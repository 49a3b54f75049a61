import { meaning } from "../../lib/words";
import { type Answer, type Plan, type Project, type Prompt, type Repeat, type Size, type Starter, pointer } from "../../api/client";
import { INCH, type Style, onTape, text } from "../../lib/format";

/** One thing the builder states: a size with its meaning, a count, a choice. */
export interface Target {
  key: string;
  label: string;
  prompt: Prompt;
  answer: Answer;
  /** How the plan understood it. */
  sized?: Size;
  error?: string;
  /** Gives the project with another answer. */
  set: (p: Project, a: Answer) => Project;
}

const axes = ["wide", "deep", "high"];

/** How a length is written where it may be none of the tape's. */
export const styleOf = (nm: number, style: Style): Style => (style === "inches" && !onTape(nm, 64) ? "decimal" : style);

/** Whether a starter's answers drive the frame. */
export const isDriven = (p: Project) => p.starter !== undefined && !p.starter.own;

/** Gives the project with another answer to a starter's prompt. */
const withAnswer = (key: string) => (p: Project, a: Answer) =>
  p.starter ? { ...p, starter: { ...p.starter, answers: { ...p.starter.answers, [key]: a } } } : p;

/** What the builder states about this project: the prompts of its starter with the sizes typed by hand beside them, or the frame's own sizes with the counts that are left of a starter. */
export function targetsOf(
  project: Project,
  starters: Starter[] | undefined,
  plan: Plan | undefined,
  places: Record<string, string>,
  repeats: Repeat[] = [],
): Target[] {
  const sizes = plan?.frames[0]?.sizes ?? [];
  const { starter } = project;
  if (starter && isDriven(project)) {
    const prompts = starters?.find((s) => s.id === starter.id)?.prompts ?? [];
    const asked: Target[] = prompts.map((prompt) => ({
      key: prompt.key,
      label: prompt.label,
      prompt,
      answer: starter.answers[prompt.key] ?? { text: prompt.default, meaning: prompt.meanings?.[0], unit: "in" },
      sized: sizes.find((s) => s.prompt === prompt.key),
      error: places[pointer("project", "starter", "answers", prompt.key)],
      set: withAnswer(prompt.key),
    }));
    return [
      ...asked,
      ...sizesOf(
        project,
        plan,
        sizes.filter((s) => !s.prompt && !s.starters),
        places,
      ),
    ];
  }
  return [...repeats.map((r) => repeatOf(project, r, places)), ...sizesOf(project, plan, sizes, places)];
}

/** A count that is left of a starter: how many there are, which is fewer than were answered where some were taken away by hand. */
function repeatOf(project: Project, r: Repeat, places: Record<string, string>): Target {
  const whole = (t: string) => /^\s*\d+\s*$/.test(t);
  const text = project.starter?.answers[r.key]?.text ?? String(r.count + r.gone);
  return {
    key: r.key,
    label: r.label,
    prompt: { key: r.key, label: r.label, input: "count", default: String(r.count), least: r.least, most: r.most, why: r.why },
    answer: { text: whole(text) ? String(Number(text) - r.gone) : text },
    error: places[pointer("project", "starter", "answers", r.key)],
    set: (p, a) => withAnswer(r.key)(p, { ...a, text: whole(a.text) ? String(Number(a.text) + r.gone) : a.text }),
  };
}

/** Sizes of the document, each with what was typed over it. */
function sizesOf(project: Project, plan: Plan | undefined, sizes: Size[], places: Record<string, string>): Target[] {
  if (!plan)
    return Object.entries(project.sizes ?? {}).map(([path, answer]) => ({
      key: path,
      label: path,
      prompt: {
        key: path,
        label: path,
        input: "length",
        default: answer.text,
        meanings: answer.meaning ? [answer.meaning] : ["centre"],
        why: "",
      },
      answer,
      error: places[pointer("project", "sizes", path)],
      set: (p, a) => ({ ...p, sizes: { ...p.sizes, [path]: a } }),
    }));
  const asks = project.asks?.prompts ?? [];
  const called = (ref: string) => plan.frames[0]?.joints.find((j) => j.id === ref)?.name || ref;
  const askOf = (s: Size) => asks.find((a) => a.size === s.id);
  const order = (s: Size) => asks.findIndex((a) => a.size === s.id);
  // what the starter asks for comes first, as it asks for it
  const sorted = [...sizes].sort((a, b) => (order(a) < 0 ? asks.length : order(a)) - (order(b) < 0 ? asks.length : order(b)));
  return sorted.map((s) => ({
    key: s.id,
    label: askOf(s)?.label || s.label || `${called(s.from)} → ${called(s.to)}, ${axes[s.axis] ?? "along the slope"}`,
    prompt: {
      key: s.id,
      label: s.label,
      input: "length",
      default: s.text,
      meanings: s.can,
      why: askOf(s)?.why ?? "",
    },
    answer: project.sizes?.[s.id] ?? { text: s.text || text(s.value, project.style as Style, 64), meaning: s.meaning },
    sized: s,
    error: places[pointer("project", "sizes", s.id)],
    set: (p, a) => ({ ...p, sizes: { ...p.sizes, [s.id]: a } }),
  }));
}

/** A length as it would be typed, for a size that was pulled or nudged. */
export function asTyped(nm: number, style: Style): string {
  return text(nm, style, 16)
    .replaceAll("⁄", "/")
    .replaceAll("″", style === "feet-inches" ? '"' : "")
    .replaceAll("′", "'")
    .trim();
}

/** The step of the tape that a pull or a nudge keeps to, in nanometres. */
export const tapeStep = (style: Style) => (style === "metric" ? 1_000_000 : INCH / 16);

/** The meanings to choose from: those that are offered, and the one that it was typed with. */
export const meaningsOf = (t: Target) =>
  [
    ...new Set([
      ...(t.prompt.meanings ?? []),
      ...(t.answer.meaning ? [t.answer.meaning] : []),
      ...(t.sized?.between && !t.prompt.thing ? ["cut", "visible"] : []),
    ]),
  ].map((m) => [m, meaning(m)] as const);
