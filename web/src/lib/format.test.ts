import { expect, it } from "vitest";
import { money, text } from "./format";

const inch = 25_400_000;

it("what rounds to nothing has no sign", () => {
  expect(text(-1000, "inches")).toBe("0″");
  expect(text(-1000, "metric")).toBe("0 mm");
  expect(text(-inch / 2, "inches")).toBe("−1⁄2″");
});

it("amounts are written as money is", () => {
  expect([money(123456), money(-5), money(0)]).toEqual(["$1,234.56", "−$0.05", "$0.00"]);
});
