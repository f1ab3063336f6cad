import assert from "node:assert/strict";
import { test } from "node:test";
import { HitTest, placesIn } from "../../src/Falzkunst.Web/wwwroot/js/light-table/hit-test.js";
import { looseWithin } from "../../src/Falzkunst.Web/wwwroot/js/light-table/tools/loose-band.js";
import { item, layout, scene, square, straightPaths } from "./given.mjs";

const pairs = (d) => placesIn(d).map(({ x, y }) => [x, y]);

test("the places in path data are its corners and handles, with what stays of x and y", () => {
  assert.deepEqual(pairs("M1 2H5V-7.5L3 4Z"), [
    [1, 2],
    [5, 2],
    [5, -7.5],
    [3, 4],
  ]);
  assert.deepEqual(pairs("M0 0C1 2 3 4 5 6V9M2 2H1e-3"), [
    [0, 0],
    [1, 2],
    [3, 4],
    [5, 6],
    [5, 9],
    [2, 2],
    [0.001, 2],
  ]);
});

test("a band takes the lines that lie wholly in it, where they lie on the table", () => {
  const moved = item("p1", [square(0, 0, 20), square(2, 2, 4), square(12, 12, 4)], { map: [1, 0, 0, 1, 100, 0] });
  const hits = new HitTest(scene([moved]), straightPaths);
  const all = layout([moved]);
  assert.deepEqual(hits.linesWithin(all, [101, 1, 107, 7]), ["p1/l2"]);
  assert.deepEqual(hits.linesWithin(all, [101, 1, 105, 7]), []);
  assert.deepEqual(hits.linesWithin(all, [100, 0, 120, 20]), ["p1/l1", "p1/l2", "p1/l3"]);
});

test("a band takes loose lines, and aids stay where they are", () => {
  const loose = [
    { id: "l1", op: "cut", path: "M1 1L4 4" },
    { id: "l2", op: "aid", path: "M1 1L4 4" },
    { id: "l3", op: "draw", path: "M1 1C2 9 3 3 4 4" },
  ];
  assert.deepEqual(looseWithin(layout([], { loose }), [0, 0, 5, 5]), ["l1"]);
  assert.deepEqual(looseWithin(layout([], { loose }), [0, 0, 5, 9]), ["l1", "l3"]);
  assert.deepEqual(looseWithin(layout([], { loose }), [2, 0, 5, 9]), []);
});
