// @ts-check
// Lines touched on the picture of a run that is over, to be run again alone. They stand behind the sheet as "sheet:p1.1/l3,p2.1/l1".
import { copyOf, parts } from "../picked.js";

/** What is touched can be run again now. */
export const mayTouch = () => document.getElementById("run-again") !== null;

/** The picture is one of a run. */
export const isRun = () => document.querySelector("#tray .timeline") !== null;

/** @returns {string[]} */
const words = () => (document.body.dataset.selected ?? "").split(":")[1]?.split(",").filter(Boolean) ?? [];

/**
 * The key after a touch: the line there added, or taken off again. Null where nothing was touched.
 * @param {import("./sight.js").Sight} sight
 * @param {Point} at
 */
export function keyAfterRunTouch(sight, at) {
  const item = mayTouch() ? sight.itemAt(at) : undefined;
  const line = item && sight.lineAt(at, item);
  if (!item || !line) return null;
  const word = `${copyOf(item)}/${parts(line).id}`;
  const left = words().includes(word) ? words().filter((w) => w !== word) : [...words(), word];
  const sheet = (document.body.dataset.selected ?? "").split(":")[0];
  return left.length ? `${sheet}:${left.join(",")}` : sheet;
}

/**
 * The touched lines as they lie on the table.
 * @param {import("./sight.js").Sight} sight
 * @param {SceneLayout} layout
 * @returns {{ d: string, map: Map6 }[]}
 */
export function touchedOf(sight, layout) {
  if (!mayTouch()) return [];
  return words().flatMap((word) => {
    const [copy, id] = word.split("/");
    const item = layout.items.find((i) => copyOf(i) === copy);
    const d = item && sight.pathOf(item, id);
    return item && d ? [{ d, map: item.map }] : [];
  });
}
