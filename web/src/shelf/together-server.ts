import { type Project, Refusal, type Shop, type Together, api, ask } from "../api/client";
import { deviceName } from "../desk/device";
import { follow } from "../desk/follow";
import type { Server } from "../desk/server";

export interface Bought {
  ids: string[];
  variants: boolean;
}

/** What is kept of how several projects are bought together: not the projects, which stay as they are. */
type Kept = Pick<Project, "tool" | "school" | "spareEvery" | "terms">;

const keyOf = (b: Bought) => `sturdyelbow.together.${[...b.ids].sort().join(",")}`;

function kept(b: Bought): Kept {
  try {
    return JSON.parse(localStorage.getItem(keyOf(b)) ?? "{}") as Kept;
  } catch {
    return { tool: "" };
  }
}

/** The name under which events of several projects wait on this device. */
export const idOf = (b: Bought) => `together ${[...b.ids].join(",")}`;

/** How several projects are asked for, as they are bought on this page. */
const request = (b: Bought, p: Project, shop?: Shop) => ({
  projects: b.ids,
  variants: b.variants || undefined,
  tool: p.tool || undefined,
  school: p.school || undefined,
  spareEvery: p.spareEvery || undefined,
  terms: p.terms,
  shop,
});

export const togetherBody = (b: Bought, p: Project) => request(b, p);

/**
 * Several projects as one that is open: their plan is that of all, what is done goes into the record of each. What is chosen
 * here, the tool and the like, is kept in this browser.
 */
export function togetherServer(b: Bought, tell: (t: Together) => void): Server {
  let project = { name: "", units: "in", style: "inches", copies: 1, ...kept(b) } as Project;
  project.tool ||= "";
  const no = () => Promise.reject(new Refusal(422, { status: 422, title: "Change a project by itself: here several are bought." }));
  return {
    project: async () => ({ doc: project, revision: 1 }),
    shop: async () => {
      const s = await ask(api.GET("/api/shop"));
      return { doc: s.shop, revision: s.revision };
    },
    saveProject: async (revision, p) => {
      project = p;
      localStorage.setItem(keyOf(b), JSON.stringify({ tool: p.tool, school: p.school, spareEvery: p.spareEvery, terms: p.terms }));
      return revision + 1;
    },
    saveShop: async (revision, shop) => (await ask(api.PUT("/api/shop", { body: { revision, shop } }))).revision,
    edit: no,
    plan: async (d, o) => {
      const t = await ask(api.POST("/api/together", { body: request(b, d.project, d.shop), signal: o.signal }));
      tell(t);
      return { plan: t.plan, drawings: [], repeats: [], beside: [], events: t.events };
    },
    say: async (events) =>
      ask(
        api.POST("/api/together/events", {
          body: {
            ...request(b, project),
            device: deviceName(),
            events: events.map(({ seq: _s, at: _a, device: _d, ...e }) => e) as typeof events,
          },
        }),
      ),
    effect: (was, shop) => ask(api.POST("/api/shop/effect", { body: { was, shop } })),
    mistakes: (d, signal) => ask(api.POST("/api/together/mistakes", { body: request(b, d.project, d.shop), signal })),
    badCut: (d, event) => ask(api.POST("/api/together/badcut", { body: { ...request(b, d.project, d.shop), event } })),
    putBack: async () => undefined,
    // whatever changes anywhere may change what is bought
    follow: (heard) => follow("", (n) => heard({ ...n, revision: undefined, events: Number.MAX_SAFE_INTEGER })),
    close: () => undefined,
  };
}
