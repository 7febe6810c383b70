import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, test } from "vitest";
import {
  allGpcs,
  forgetPoints,
  joinPoints,
  type OrderContent,
  pointsAmong,
  pointsOf,
  readOrder,
  splitPoint,
} from "./index.ts";

const folder = new URL("../../data/orders/", import.meta.url);
const shipped = readdirSync(folder).map((file) => readOrder(readFileSync(new URL(file, folder), "utf8")));
const order = (...steps: (readonly string[])[]): OrderContent => ({
  ...{ name: "x", kind: "", why: "" },
  steps: steps.map((gpcs, at) => ({ id: `s${at}`, title: `${at}`, gpcs, exceptionWords: [] })),
});
const names = (one: OrderContent) => pointsOf(one).map(({ name }) => name);

describe("the points of an order", () => {
  test.each(shipped.map((one) => [one.name, one] as const))(
    "%s: each spelling is in one point, each name once",
    (_, one) => {
      const points = pointsOf(one);
      expect(points.flatMap(({ gpcs }) => gpcs).sort()).toEqual([...allGpcs(one)].sort());
      expect(new Set(points.map(({ id }) => id)).size).toBe(points.length);
      expect(points.filter(({ name }, at) => points.findIndex((other) => other.name === name) !== at)).toEqual([]);
      const place = new Map(allGpcs(one).map((gpc, at) => [gpc, at]));
      const begun = points.map(({ id }) => place.get(id) ?? -1);
      expect(begun).toEqual([...begun].sort((left, right) => left - right));
    },
  );
  test("by rule: what is taught as one thing has a name in words", () => {
    expect(names(order(["ai=ai", "ay=ai"]))).toEqual(["ai and ay"]);
    expect(names(order(["ll=l", "ss=s"], ["ff=f"]))).toEqual(["doubled letters at the end"]);
    expect(names(order(["a_e=ai"], ["i_e=igh"], ["o_e=oa"]))).toEqual(["final e with a, i, o"]);
    expect(names(order(["c=s", "ce=s"]))).toEqual(["soft c before e, i, y"]);
    expect(names(order(["ed=d", "ed=t"]))).toEqual(["-ed, two sounds"]);
    expect(names(order(["th=th", "th=dh"]))).toEqual(["th, two sounds"]);
    expect(names(order(["kn=n", "wr=r"]))).toEqual(["a quiet letter: kn, wr"]);
    expect(names(order(["er=er", "ir=er", "ur=er"]))).toEqual(["er, ir and ur"]);
    expect(names(order(["m=m", "a=a"]))).toEqual(["m", "a"]);
  });
  test("what is far apart in the order is not one thing", () => {
    expect(names(order(["ai=ai"], ["m=m"], ["ay=ai"]))).toEqual(["ai", "m", "ay"]);
    expect(names(order(["tt=t"], ["m=m"], ["m=m"], ["bb=b"]))).toContain("tt");
  });
  test("a spelling that comes with another sound later is told apart by a word", () => {
    expect(names(order(["ea=ee"], ["m=m"], ["ea=e"]))).toEqual(["ea as in leaf", "m", "ea as in bread"]);
  });
});

test("an order written as text names points of its own", () => {
  const read = readOrder("name: x\nkind: k\nwhy: w\nRain: ai ay\nBoat: oa ow=oa\npoint: long ones: ay oa\n");
  expect(names(read)).toEqual(["ai", "long ones", "ow"]);
  expect(() => readOrder("name: x\nRain: ai\npoint: odd: zq")).toThrow('"zq"');
});

describe("points of the school's own", () => {
  const base = order(["ai=ai", "ay=ai"], ["oa=oa"]);
  test("join, split, and back to the rules", () => {
    const joined = joinPoints(base, "two vowels", ["ay=ai", "oa=oa"]);
    expect(pointsOf(joined)).toMatchObject([
      { name: "ai", own: false },
      { name: "two vowels", gpcs: ["ay=ai", "oa=oa"], own: true },
    ]);
    const point = pointsOf(base)[0];
    expect(point && names(splitPoint(base, point))).toEqual(["ai", "ay", "oa"]);
    expect(names(forgetPoints(joined, ["oa=oa"]))).toEqual(names(base));
  });
  test("a spelling leaves the point that it was in, and what is not taught is in none", () => {
    const twice = joinPoints(joinPoints(base, "one", ["ai=ai", "ay=ai"]), "other", ["ai=ai"]);
    expect(pointsOf(twice)).toMatchObject([
      { name: "other", gpcs: ["ai=ai"] },
      { name: "one", gpcs: ["ay=ai"] },
      { name: "oa" },
    ]);
    expect(names(joinPoints(base, "gone", ["zz=z"]))).toEqual(names(base));
  });
});

test("some spellings as points: what of a point is meant, in order, and what no point has by itself", () => {
  const points = pointsOf(order(["ai=ai", "ay=ai"], ["m=m"]));
  expect(pointsAmong(points, ["zz=z", "m=m", "ay=ai"])).toMatchObject([
    { name: "ay", partOf: "ai and ay", gpcs: ["ay=ai"] },
    { name: "m", gpcs: ["m=m"] },
    { name: "zz", gpcs: ["zz=z"] },
  ]);
  expect(pointsAmong(points, ["ai=ai", "ay=ai"])).toEqual([points[0]]);
});
