// @ts-check
// Where items lie on the table; for the page and the worker alike.
import { apply } from "./maps.js";

/**
 * The upright box of a box under a map.
 * @param {{ x: number, y: number, width: number, height: number }} box
 * @param {Map6} map
 * @returns {Box}
 */
export function cornersOf({ x, y, width, height }, map) {
  const corners = [
    { x, y },
    { x: x + width, y },
    { x, y: y + height },
    { x: x + width, y: y + height },
  ].map((p) => apply(map, p));
  const [xs, ys] = [corners.map((p) => p.x), corners.map((p) => p.y)];
  return [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
}

/**
 * The box round boxes, of which there is one at least.
 * @param {Box[]} boxes
 * @returns {Box}
 */
export const around = (boxes) =>
  boxes.reduce((all, b) => [Math.min(all[0], b[0]), Math.min(all[1], b[1]), Math.max(all[2], b[2]), Math.max(all[3], b[3])]);

/**
 * The upright box of all that is drawn of an item, lines past its edge among it.
 * @param {SceneItem} item
 */
export function reachOf(item) {
  if (!item.reach) return boxOf(item);
  const [x, y, width, height] = item.reach;
  return cornersOf({ x, y, width, height }, item.map);
}

/**
 * The upright box of an item on the table.
 * @param {SceneItem} item
 */
export const boxOf = (item) => cornersOf(item.size, item.map);
