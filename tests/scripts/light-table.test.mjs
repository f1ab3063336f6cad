import assert from "node:assert/strict";
import { test } from "node:test";
import { around, boxOf, cornersOf, reachOf } from "../../src/Falzkunst.Web/wwwroot/js/light-table/boxes.js";
import { Damage } from "../../src/Falzkunst.Web/wwwroot/js/light-table/damage.js";
import { handlesOf, isNear, turned } from "../../src/Falzkunst.Web/wwwroot/js/light-table/handles.js";
import { HitTest } from "../../src/Falzkunst.Web/wwwroot/js/light-table/hit-test.js";
import { Latest } from "../../src/Falzkunst.Web/wwwroot/js/light-table/latest.js";
import { apply, inverse, scaleOf, then } from "../../src/Falzkunst.Web/wwwroot/js/light-table/maps.js";
import { number, stepFor, ticks } from "../../src/Falzkunst.Web/wwwroot/js/light-table/rulers.js";
import { complete } from "../../src/Falzkunst.Web/wwwroot/js/light-table/scene.js";
import { hold, targetsOf } from "../../src/Falzkunst.Web/wwwroot/js/light-table/snap.js";
import { factors, frame, stepped } from "../../src/Falzkunst.Web/wwwroot/js/light-table/hand-maths.js";
import { View } from "../../src/Falzkunst.Web/wwwroot/js/light-table/view.js";
import { item, layout, random, scene, square, straightPaths } from "./given.mjs";

const seed = Number(process.env.FALZKUNST_SEED ?? 14);
const near = (a, b, within = 1e-9) => assert.ok(Math.abs(a - b) <= within, `${a} is not ${b}`);

function anyMap(next) {
  const turn = next() * 2 * Math.PI;
  const k = 0.1 + 3 * next();
  const flip = next() < 0.5 ? -1 : 1;
  return [k * Math.cos(turn), k * Math.sin(turn), -flip * k * Math.sin(turn), flip * k * Math.cos(turn), 50 * next(), 50 * next()];
}

test("a map and its inverse undo each other, and one after the other is both", () => {
  const next = random(seed);
  for (let i = 0; i < 200; i++) {
    const [one, other, p] = [anyMap(next), anyMap(next), { x: 100 * next(), y: 100 * next() }];
    const back = apply(inverse(one), apply(one, p));
    near(back.x, p.x, 1e-9);
    near(back.y, p.y, 1e-9);
    const [both, after] = [apply(then(one, other), p), apply(other, apply(one, p))];
    near(both.x, after.x, 1e-9);
    near(both.y, after.y, 1e-9);
    near(scaleOf(then(one, other)), scaleOf(one) * scaleOf(other), 1e-9);
  }
});

test("the box of a turned box holds its corners and no more", () => {
  const [minX, minY, maxX, maxY] = cornersOf({ x: 0, y: 0, width: 4, height: 2 }, [0, 1, -1, 0, 10, 20]);
  assert.deepEqual([minX, minY, maxX, maxY], [8, 20, 10, 24]);
  assert.deepEqual(
    around([
      [0, 5, 1, 6],
      [-2, 3, 0, 4],
    ]),
    [-2, 3, 1, 6],
  );
  const plain = item("p1", [square(1, 1, 4)]);
  assert.deepEqual(boxOf(plain), [1, 1, 5, 5]);
  assert.deepEqual(reachOf({ ...plain, reach: [0, 0, 9, 9] }), [0, 0, 9, 9]);
});

test("zooming keeps what lies under the pointer, within its limits", () => {
  const next = random(seed);
  const view = new View();
  for (let i = 0; i < 300; i++) {
    const [px, py] = [next() * 1000, next() * 600];
    const before = view.toTable(px, py);
    view.zoomAt(px, py, Math.exp(4 * (next() - 0.5)));
    const after = view.toTable(px, py);
    near(before.x, after.x, 1e-6 * (1 + Math.abs(before.x)));
    near(before.y, after.y, 1e-6 * (1 + Math.abs(before.y)));
    assert.ok(view.scale >= 0.02 && view.scale <= 400);
    if (i % 40 === 0) view.fit([0, 0, 100, 50], 1000, 600, { left: 0, right: 0, top: 0, bottom: 0 });
  }
});

test("fitting shows all of a box in the middle of what is free", () => {
  const view = new View();
  view.fit([10, 10, 110, 60], 1000, 600, { left: 100, right: 100, top: 50, bottom: 50 });
  const [a, b] = [view.toScreen(10, 10), view.toScreen(110, 60)];
  near(a.x, 100);
  near(b.x, 900);
  near(a.y + b.y, 600);
  view.pan(7, -3);
  near(view.toScreen(10, 10).x, 107);
});

test("the topmost piece is touched, and what lies in an opening of it shows through", () => {
  const ring = item("ring", [square(0, 0, 100), square(30, 30, 40)], { roles: ["o", "p"] });
  const below = item("below", [square(20, 20, 60)]);
  const l = layout([below, ring]);
  const hits = new HitTest(scene([below, ring]), straightPaths);
  assert.equal(hits.itemAt(l, { x: 10, y: 10 }, 0)?.piece, "ring");
  assert.equal(hits.itemAt(l, { x: 50, y: 50 }, 0)?.piece, "below");
  assert.equal(hits.itemAt(l, { x: 104, y: 50 }, 5)?.piece, "ring");
  assert.equal(hits.itemAt(l, { x: 107, y: 50 }, 5), undefined);
  assert.ok(hits.isInOutline(ring, { x: 50, y: 50 }));
});

test("a touch finds what was turned, mirrored and moved", () => {
  const next = random(seed);
  for (let i = 0; i < 100; i++) {
    const map = anyMap(next);
    const piece = item("p1", [square(0, 0, 10), square(2, 2, 3)], { map });
    const hits = new HitTest(scene([piece]), straightPaths);
    const at = apply(map, { x: 9 * next() + 0.5, y: 9 * next() + 0.5 });
    assert.equal(hits.itemAt(layout([piece]), at, 0)?.piece, "p1");
    assert.equal(hits.itemAt(layout([piece]), apply(map, { x: -1, y: 5 }), 0), undefined);
    // The inner line is found at its edge; once picked, also inside it.
    assert.equal(hits.lineAt(piece, apply(map, { x: 2, y: 3 }), 0.1), "p1/l2");
    assert.equal(hits.lineAt(piece, apply(map, { x: 3.5, y: 3.5 }), 0.1), null);
    assert.equal(hits.lineAt(piece, apply(map, { x: 3.5, y: 3.5 }), 0.1, ["p1/l2"]), "p1/l2");
    const line = hits.line(piece, "p1/l2");
    const [x, y] = line.toTable({ x: 2, y: 2 });
    const back = line.fromTable({ x, y });
    near(back.x, 2, 1e-9);
    near(back.y, 2, 1e-9);
  }
});

test("the card's places are shown where the piece lies on the table", () => {
  const piece = item("p1", [square(0, 0, 10)], { map: [1, 0, 0, 1, 200, 0], place: [0, 1, -1, 0, 30, 40] });
  const line = new HitTest(scene([piece]), straightPaths).line(piece, "p1/l1");
  const own = { x: 3, y: 4 };
  const [cardX, cardY] = line.toCard(own);
  assert.deepEqual(line.toTable(own), Object.values(apply(line.cardMap, { x: cardX, y: cardY })));
});

test("boxes of what is picked are those of its lines, or of its pieces", () => {
  const piece = item("p1", [square(0, 0, 10), square(2, 2, 3)], { map: [2, 0, 0, 2, 0, 0] });
  const other = item("p2", [square(50, 50, 10)]);
  const hits = new HitTest(scene([piece, other]), straightPaths);
  const l = layout([piece, other]);
  assert.deepEqual(hits.boxOf(l, { pieces: ["p1"], lines: ["p1/l2"] }), [4, 4, 10, 10]);
  assert.deepEqual(hits.boxOf(l, { pieces: ["p1", "p2"], lines: [] }), [0, 0, 60, 60]);
  assert.deepEqual(
    hits.within(l, [-1, -1, 21, 21]).map((i) => i.piece),
    ["p1"],
  );
});

test("an edge holds on to the nearest place within reach, the grid only where nothing is near", () => {
  const targets = targetsOf(layout([item("p1", [square(100, 0, 20)])], { frames: [{ kind: "guide", box: [0, 0, 150, 100] }] }), [], [], []);
  const held = hold([77, 40, 97, 50], targets, 5, 0);
  assert.equal(held.dx, -2);
  assert.deepEqual(
    held.hints.find((h) => h.x !== undefined),
    { x: 75, word: "middle of the card" },
  );
  assert.equal(held.dy, 0, "its lower edge is held at the card's middle already");
  assert.deepEqual(hold([31, 31, 33, 33], { xs: [], ys: [] }, 5, 10), {
    dx: -1,
    dy: -1,
    hints: [
      { x: 30, word: "grid" },
      { y: 30, word: "grid" },
    ],
  });
  assert.deepEqual(hold([34, 34, 36, 36], { xs: [], ys: [] }, 3, 10), { dx: 0, dy: 0, hints: [] });
  assert.deepEqual(targetsOf(layout([item("p1", [square(0, 0, 20)])]), ["p1"], [], []).xs, []);
});

test("rulers have round steps with room for their labels, five ticks to each", () => {
  const view = new View();
  for (let k = -6; k < 12; k++) {
    view.scale = 1.7 ** k;
    for (const unit of [1, 25.4]) {
      const step = stepFor(view, unit, 52);
      assert.ok(step * unit * view.scale >= 52 - 1e-9 && step * unit * view.scale < 52 * 2.6);
      assert.match(String(Number((step / 10 ** Math.floor(Math.log10(step) + 1e-9)).toFixed(6))), /^(1|2|5)$/);
    }
  }
  const found = ticks(-10, 10, 1, 5);
  assert.deepEqual(
    found.filter((t) => t.isMajor).map((t) => t.value),
    [-10, -5, 0, 5, 10],
  );
  assert.equal(found.length, 21);
  assert.equal(ticks(0, 1e9, 1, 1).length, 2000);
  assert.equal(number(-0.1234), "−0.123");
});

test("handles stand about the box, and a hand's turn is told the short way round", () => {
  const view = new View();
  [view.scale, view.x, view.y] = [2, 0, 0];
  const handles = handlesOf(view, [0, 0, 10, 20]);
  assert.deepEqual(
    handles.map((h) => h.kind),
    ["both", "width", "height", "turn"],
  );
  assert.ok(isNear(handles[0], { x: 26, y: 46 }) && !isNear(handles[0], { x: 36, y: 46 }));
  near(turned({ x: 1, y: 0 }, { x: 0, y: 1 }, { x: 0, y: 0 }), 90);
  near(turned({ x: -1, y: 0.001 }, { x: -1, y: -0.001 }, { x: 0, y: 0 }), 0.1146, 1e-3);
});

test("sizes keep their proportion unless let go of, strokes become frames", () => {
  assert.deepEqual(factors("both", { x: 2, y: 1.1 }, false), { x: 2, y: 2 });
  assert.deepEqual(factors("both", { x: 2, y: 1.1 }, true), { x: 2, y: 1.1 });
  assert.deepEqual(factors("width", { x: -3, y: 9 }, false), { x: 0.01, y: 1 });
  assert.deepEqual(frame({ x: 10, y: 10 }, { x: 4, y: 12 }, false), { x: 4, y: 10, width: 6, height: 2 });
  assert.deepEqual(frame({ x: 10, y: 10 }, { x: 4, y: 12 }, true), { x: 4, y: 10, width: 6, height: 6 });
  assert.deepEqual([stepped(-1, 1, 4), stepped(-1, -1, 4), stepped(3, 1, 4), stepped(0, -1, 4)], [0, 3, 0, 3]);
});

test("only what differs is painted again, and all of it after a change of view", () => {
  const damage = new Damage();
  const items = [item("p1", [square(0, 0, 10)]), item("p2", [square(100, 0, 10)])];
  assert.equal(damage.since("a", items, ["1", "1"], 1), null);
  assert.deepEqual(damage.since("a", items, ["1", "1"], 1), []);
  assert.deepEqual(damage.since("a", items, ["1", "2"], 1), [
    [94, -6, 116, 16],
    [94, -6, 116, 16],
  ]);
  assert.deepEqual(damage.since("a", items.slice(0, 1), ["1"], 2), [[97, -3, 113, 13]]);
  assert.equal(damage.since("b", items, ["1", "2"], 1), null);
  damage.forget();
  assert.equal(damage.since("b", items, ["1", "2"], 1), null);
});

test("a scene is made whole from the one before, and says what it lacks", () => {
  const piece = { name: "One", shape: "s1", fill: "#fff", lines: [] };
  const first = complete(
    { pieces: { p1: piece }, shapes: { s1: ["M0 0Z"] }, layouts: [layout([{ piece: "p1", copy: 1, map: [] }])] },
    null,
  );
  const second = complete({ pieces: {}, shapes: {}, layouts: [layout([{ piece: "p1", copy: 2, map: [] }])] }, first);
  assert.equal(second.layouts[0].items[0].name, "One");
  assert.deepEqual(second.shapes, first.shapes);
  assert.throws(() => complete({ pieces: {}, shapes: {}, layouts: [layout([{ piece: "p9", copy: 1, map: [] }])] }, first), /lacks p9/);
});

test("of questions that pile up only the last is asked, and none is shown after the end", async () => {
  const asked = [];
  let letGo = () => {};
  const latest = new Latest((q) => {
    asked.push(q);
    return new Promise((done) => (letGo = () => done(q * 10)));
  });
  const shown = [];
  const first = latest.ask(1, (a) => shown.push(a));
  latest.ask(2, (a) => shown.push(a));
  latest.ask(3, (a) => shown.push(a));
  letGo();
  await new Promise((done) => setTimeout(done));
  letGo();
  await first;
  assert.deepEqual(
    [asked, shown],
    [
      [1, 3],
      [10, 30],
    ],
  );
  const last = latest.ask(4, (a) => shown.push(a));
  latest.end();
  letGo();
  await last;
  assert.deepEqual(shown, [10, 30]);
});
