// @ts-check
// What is picked on this page.
import { read, resolve } from "./picked-words.js";

export * from "./picked-words.js";

/** @returns {import("./light-table/light-table.js").LightTable | null} */
export const table = () => document.querySelector("light-table");

/** @type {{ key: string, scene: Scene | null, value: Picked } | null} */
let known = null;

/** What is picked now: ids of the pieces concerned, and the lines one by one. */
export function now() {
  const key = document.body.dataset.selected ?? "";
  const scene = table()?.scene ?? null;
  if (known?.key !== key || known.scene !== scene) known = { key, scene, value: resolve(key, scene?.layouts[0].items ?? []) };
  return known.value;
}

/** The copies that are picked on sheets. */
export const copies = () => read(document.body.dataset.selected).words.flatMap((w) => w.ids);
