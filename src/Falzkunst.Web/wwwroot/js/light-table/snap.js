// @ts-check
// Where a moving box holds on: the card's edges and middles, other pieces' edges and middles, aids, the grid.
import { boxOf } from "./boxes.js";

/** @typedef {[at: number, word: string]} Target */
/** @typedef {{ xs: Target[], ys: Target[] }} Targets */

/** mm */
export const gridStep = (/** @type {boolean} */ inches) => (inches ? 25.4 / 4 : 5);

/**
 * The places to hold on to, across and down, each with its words.
 * @param {SceneLayout} layout
 * @param {string[]} moving pieces that move, or whose lines do
 * @param {string[]} inPieces those of them that stay themselves
 * @param {Box[]} aids
 * @returns {Targets}
 */
export function targetsOf(layout, moving, inPieces, aids) {
  /** @type {Targets} */
  const targets = { xs: [], ys: [] };
  const take = (/** @type {Box} */ [minX, minY, maxX, maxY], /** @type {string} */ name) => {
    targets.xs.push([minX, `left edge of ${name}`], [(minX + maxX) / 2, `middle of ${name}`], [maxX, `right edge of ${name}`]);
    targets.ys.push([minY, `top of ${name}`], [(minY + maxY) / 2, `middle of ${name}`], [maxY, `bottom of ${name}`]);
  };
  for (const frame of layout.frames) if (frame.kind === "guide") take(frame.box, "the card");
  for (const item of layout.items) if (!moving.includes(item.piece) || inPieces.includes(item.piece)) take(boxOf(item), item.name);
  for (const aid of aids) take(aid, "an aid");
  return targets;
}

/**
 * How far to shift a box so that it holds on, and what it holds on to.
 * @param {Box} box
 * @param {Targets} targets
 * @param {number} reach mm
 * @param {number} grid mm; 0 for none
 * @returns {{ dx: number, dy: number, hints: Hint[] }}
 */
export function hold([minX, minY, maxX, maxY], { xs, ys }, reach, grid) {
  const across = nearest([minX, (minX + maxX) / 2, maxX], xs, reach, grid);
  const down = nearest([minY, (minY + maxY) / 2, maxY], ys, reach, grid);
  /** @type {Hint[]} */
  const hints = [];
  if (across) hints.push({ x: across.at, word: across.word });
  if (down) hints.push({ y: down.at, word: down.word });
  return { dx: across?.by ?? 0, dy: down?.by ?? 0, hints };
}

/**
 * What the nearest of some own places holds on to; the grid only where nothing else is near.
 * @param {number[]} own
 * @param {Target[]} targets
 * @param {number} reach
 * @param {number} grid
 * @returns {{ by: number, at: number, word: string } | null}
 */
function nearest(own, targets, reach, grid) {
  let best = null;
  let least = reach;
  for (const [at, word] of targets) {
    for (const mine of own) {
      if (Math.abs(at - mine) >= least) continue;
      best = { by: at - mine, at, word };
      least = Math.abs(at - mine);
    }
  }
  if (best || !grid) return best;
  const at = Math.round(own[0] / grid) * grid;
  return Math.abs(at - own[0]) < reach ? { by: at - own[0], at, word: "grid" } : null;
}
