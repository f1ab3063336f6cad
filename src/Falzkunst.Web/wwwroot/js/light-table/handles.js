// @ts-check
// The handles of what is picked: at the lower right to size, above to turn.
export const PAD = 6; // px
const ABOVE = 18; // px
const REACH = 9; // px

/**
 * Places on screen, in pixels; the last one turns.
 * @param {import("./view.js").View} view
 * @param {Box} box
 * @returns {Handle[]}
 */
export function handlesOf(view, [minX, minY, maxX, maxY]) {
  const a = view.toScreen(minX, minY);
  const b = view.toScreen(maxX, maxY);
  const [left, top, right, bottom] = [a.x - PAD, a.y - PAD, b.x + PAD, b.y + PAD];
  return [
    { kind: "both", x: right, y: bottom },
    { kind: "width", x: right, y: (top + bottom) / 2 },
    { kind: "height", x: (left + right) / 2, y: bottom },
    { kind: "turn", x: (left + right) / 2, y: top - ABOVE },
  ];
}

/**
 * @param {Point} handle
 * @param {Point} p
 */
export const isNear = (handle, p) => Math.hypot(handle.x - p.x, handle.y - p.y) < REACH;

/**
 * Degrees that a hand has turned about a centre, from -180 to 180.
 * @param {Point} from
 * @param {Point} to
 * @param {Point} centre
 */
export function turned(from, to, centre) {
  const angle = (/** @type {Point} */ p) => (Math.atan2(p.y - centre.y, p.x - centre.x) * 180) / Math.PI;
  return ((angle(to) - angle(from) + 540) % 360) - 180;
}
