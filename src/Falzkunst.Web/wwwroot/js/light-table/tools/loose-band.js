// @ts-check
// A band over lines that lie on no piece: those within it are given away, or taken away, instead of all.
import { placesIn } from "../hit-test.js";

/** @typedef {import("../light-table.js").LightTable} LightTable */

/** The form that gives loose lines to a piece; null where there are none. */
export const looseForm = () => /** @type {HTMLFormElement | null} */ (document.getElementById("give-loose"));

/**
 * Ids of the loose lines whose every corner and handle lies within a box; aids stay where they are.
 * @param {SceneLayout} layout
 * @param {Box} box
 */
export function looseWithin(layout, [minX, minY, maxX, maxY]) {
  const isIn = (/** @type {Point} */ p) => p.x >= minX && p.y >= minY && p.x <= maxX && p.y <= maxY;
  return layout.loose.filter((l) => l.op !== "aid" && placesIn(l.path).every(isIn)).map((l) => l.id);
}

/**
 * @param {LightTable} table
 * @param {HTMLFormElement} form
 * @param {Point} from
 * @returns {Gesture}
 */
export function looseBand(table, form, from) {
  /** @type {Box | null} */
  let box = null;
  return {
    move(at) {
      box = [Math.min(from.x, at.x), Math.min(from.y, at.y), Math.max(from.x, at.x), Math.max(from.y, at.y)];
      table.ghost.preview(`M${box[0]} ${box[1]}H${box[2]}V${box[3]}H${box[0]}Z`, [1, 0, 0, 1, 0, 0]);
    },
    end() {
      const ids = box ? looseWithin(table.layout, box) : [];
      if (!ids.length) table.ghost.clear();
      say(form, ids);
    },
  };
}

/**
 * @param {HTMLFormElement} form
 * @param {string[]} ids
 */
function say(form, ids) {
  /** @type {HTMLInputElement} */ (form.elements.namedItem("lines")).value = ids.join(",");
  for (const button of form.querySelectorAll("button"))
    button.textContent = ids.length ? `${button.dataset.some} ${ids.length}` : (button.dataset.all ?? "");
}
