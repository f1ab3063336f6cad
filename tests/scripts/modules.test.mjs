import assert from "node:assert/strict";
import { readdirSync, readFileSync } from "node:fs";
import { dirname, join, relative, resolve } from "node:path";
import { test } from "node:test";
import { fileURLToPath } from "node:url";

const folder = resolve(dirname(fileURLToPath(import.meta.url)), "../../src/Falzkunst.Web/wwwroot/js");
const modules = readdirSync(folder, { recursive: true }).filter((f) => f.endsWith(".js"));
const text = new Map(modules.map((m) => [m, readFileSync(join(folder, m), "utf8")]));
/** What a module loads; types in comments load nothing. */
const loads = (m) =>
  [...text.get(m).matchAll(/^(?:import|export)\s[^;]*?["'](\.[^"']+)["'];/gm)].map((found) =>
    relative(folder, resolve(folder, dirname(m), found[1])),
  );

test("no module loads itself by way of others", () => {
  const done = new Set();
  const visit = (m, way) => {
    assert.ok(!way.includes(m), `a round of modules: ${[...way.slice(way.indexOf(m)), m].join(" → ")}`);
    if (done.has(m)) return;
    for (const next of loads(m)) visit(next, [...way, m]);
    done.add(m);
  };
  for (const m of modules) visit(m, []);
});

test("every module is checked for types, and every one is loaded", () => {
  const loaded = new Set(modules.flatMap(loads));
  for (const m of modules) {
    assert.match(text.get(m), /^\/\/ @ts-check\n/, m);
    assert.ok(loaded.has(m) || ["page.js", join("light-table", "painter.js")].includes(m), `${m} is loaded by nobody`);
  }
});

test("what the worker and the computing modules load asks no page", () => {
  for (const m of [join("light-table", "painter.js"), join("light-table", "hit-test.js"), join("light-table", "snap.js")]) {
    const all = new Set([m]);
    for (const each of all) for (const next of loads(each)) all.add(next);
    for (const each of all) assert.doesNotMatch(text.get(each), /\b(document|window)\./, `${m} loads ${each}`);
  }
});
