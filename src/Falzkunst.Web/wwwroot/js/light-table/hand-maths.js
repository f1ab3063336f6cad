// @ts-check
// What strokes and steps of a hand come to.
const LEAST = 0.01; // of the former size

/**
 * How many times as wide and as high; along both in one proportion unless that is let go of.
 * @param {Exclude<Handle["kind"], "turn">} kind
 * @param {Point} k the hand's own factors
 * @param {boolean} isFree
 * @returns {Point}
 */
export function factors(kind, { x, y }, isFree) {
  const [wide, high] = [Math.max(LEAST, x), Math.max(LEAST, y)];
  if (kind === "width") return { x: wide, y: 1 };
  if (kind === "height") return { x: 1, y: high };
  if (isFree) return { x: wide, y: high };
  const both = Math.abs(wide - 1) > Math.abs(high - 1) ? wide : high;
  return { x: both, y: both };
}

/**
 * The upright box of a stroke; a square with the corner where it began when held.
 * @param {Point} a
 * @param {Point} b
 * @param {boolean} isSquare
 */
export function frame(a, b, isSquare) {
  const [w, h] = [Math.abs(b.x - a.x), Math.abs(b.y - a.y)];
  const side = Math.max(w, h);
  const [width, height] = isSquare ? [side, side] : [w, h];
  return { x: b.x < a.x ? a.x - width : a.x, y: b.y < a.y ? a.y - height : a.y, width, height };
}

/**
 * The place after a step in a round of so many; from nowhere to the first or the last.
 * @param {number} at -1 for nowhere
 * @param {number} by 1 or -1
 * @param {number} count
 */
export const stepped = (at, by, count) => (at < 0 ? (by > 0 ? 0 : count - 1) : (at + by + count) % count);
