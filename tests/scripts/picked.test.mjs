import assert from "node:assert/strict";
import { test } from "node:test";
import { read, resolve, short, toggled, toggledLine, write } from "../../src/Falzkunst.Web/wwwroot/js/picked-words.js";
import { item, random, square } from "./given.mjs";

const items = [item("p1", [square(0, 0, 9), square(1, 1, 2), square(4, 4, 2)]), item("p2", [square(0, 0, 9), square(1, 1, 2)])];

test("what is picked is written and read back", () => {
  const next = random(Number(process.env.FALZKUNST_SEED ?? 14));
  for (let i = 0; i < 200; i++) {
    const lines = items.flatMap((p) => p.lines.filter(() => next() < 0.5).map((l) => `${p.piece}/${l.id}`));
    const key = write({ pieces: ["p1", "p2"], lines });
    const back = resolve(key, items);
    if (lines.length) assert.deepEqual(back.lines, lines);
    else assert.deepEqual(back, { pieces: ["p1", "p2"], lines: [] });
  }
  assert.equal(write({ pieces: [] }), "none");
  assert.deepEqual(read("none"), { pieces: [], words: [] });
});

test("ranges and kinds stand for their lines", () => {
  assert.deepEqual(resolve("p1:l2~l3", items).lines, ["p1/l2", "p1/l3"]);
  assert.deepEqual(resolve("p1:l3~l2", items).lines, []);
  assert.deepEqual(resolve("p2:@k", items), { pieces: ["p2"], lines: ["p2/l1", "p2/l2"] });
  assert.deepEqual(resolve("p1:l2;p2:l1", items), { pieces: ["p1", "p2"], lines: ["p1/l2", "p2/l1"] });
});

test("a piece or a line is added to the pick, or taken from it", () => {
  assert.deepEqual(toggled({ pieces: ["p1"], lines: [] }, "p2").pieces, ["p1", "p2"]);
  assert.deepEqual(toggled({ pieces: ["p1", "p2"], lines: [] }, "p1").pieces, ["p2"]);
  assert.deepEqual(toggled({ pieces: ["p1"], lines: ["p1/l2"] }, "p2"), { pieces: ["p1", "p2"], lines: [] });
  assert.deepEqual(toggledLine({ pieces: ["p1"], lines: ["p1/l2"] }, "p1/l2"), { pieces: ["p1"], lines: [] });
  assert.deepEqual(toggledLine({ pieces: ["p1"], lines: ["p1/l2"] }, "p2/l1").lines, ["p1/l2", "p2/l1"]);
});

test("a long key goes into no address but by its pieces", () => {
  const long = write({ pieces: ["p1"], lines: Array.from({ length: 400 }, (_, i) => `p1/l${i}`) });
  assert.equal(short(long), "p1");
  assert.equal(short("p1:l2"), "p1:l2");
});
