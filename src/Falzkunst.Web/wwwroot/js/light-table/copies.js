// @ts-check
// Copies on sheets: which are picked, and where they lie.
import { copies, copyOf, now } from "../picked.js";
import { around, boxOf } from "./boxes.js";
import { handlesOf } from "./handles.js";

/**
 * The items that are picked, in the scene as it is.
 * @param {SceneLayout} layout
 */
export const pickedOf = (layout) => (layout.byHand ? layout.items.filter((i) => copies().includes(copyOf(i))) : []);

/** @param {SceneItem[]} items */
export const boxOfItems = (items) => around(items.map(boxOf));

/**
 * The selection with other copies picked.
 * @param {SceneLayout} layout
 * @param {string[]} picked
 */
export function keyWith(layout, picked) {
  const [stock = layout.byHand ?? ""] = now().pieces;
  return picked.length ? `${stock}:${picked.join(",")}` : stock;
}

/**
 * The handle that turns what is picked.
 * @param {import("./view.js").View} view
 * @param {SceneItem[]} items
 * @returns {Handle}
 */
export const turnHandle = (view, items) => handlesOf(view, boxOfItems(items))[3];
