import { expect, it } from "vitest";
import type { Desk } from "./history";
import { applyFix } from "./fix";

const desk = {
  project: { name: "", tool: "saw", starter: { id: "jump", answers: { bar: { text: "3" } } } },
  shop: { stock: [{ length: 1 }] },
} as unknown as Desk;

it("a fix changes the project or the shop, and nothing else", () => {
  const a = applyFix(desk, {
    label: "",
    edits: [
      { path: "/tool", value: "shear" },
      { path: "/starter/answers/bar", value: { text: "4" } },
    ],
  });
  expect(a.project).toMatchObject({ tool: "shear", starter: { id: "jump", answers: { bar: { text: "4" } } } });
  expect(a.shop).toBe(desk.shop);
  const b = applyFix(desk, {
    label: "",
    edits: [
      { path: "/shop/stock/-", value: { length: 2 } },
      { path: "/shop/stock/0", value: { length: 3 } },
    ],
  });
  expect(b.shop.stock).toEqual([{ length: 3 }, { length: 2 }]);
  expect(b.project).toBe(desk.project);
  expect(desk.shop.stock).toEqual([{ length: 1 }]);
});

it("a member that is not there yet is made, and its name may hold slashes", () => {
  const a = applyFix(desk, { label: "", edits: [{ path: "/sizes/~1root~1axes~10", value: { text: "4" } }] });
  expect(a.project.sizes).toEqual({ "/root/axes/0": { text: "4" } });
});

it("a list that is not there yet is begun", () => {
  const a = applyFix(desk, { label: "", edits: [{ path: "/spare/-", value: { length: 3 } }] });
  expect(a.project.spare).toEqual([{ length: 3 }]);
});
