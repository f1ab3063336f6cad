// @ts-check
// Places between characters, as the server sends them: x and y of the upper and of the lower end of a caret, for one place after the
// other.

/**
 * The place that lies nearest to a point; null where none lies within a reach.
 * @param {number[]} carets
 * @param {Point} at in the coordinates of the carets
 * @param {number} reach
 */
export function nearestPlace(carets, at, reach) {
  let [best, least] = [/** @type {number | null} */ (null), reach];
  for (let i = 0; i * 4 < carets.length; i++) {
    const [x1, y1, x2, y2] = carets.slice(i * 4, i * 4 + 4);
    const length2 = (x2 - x1) ** 2 + (y2 - y1) ** 2;
    const t = length2 ? Math.min(1, Math.max(0, ((at.x - x1) * (x2 - x1) + (at.y - y1) * (y2 - y1)) / length2)) : 0;
    const distance = Math.hypot(at.x - x1 - t * (x2 - x1), at.y - y1 - t * (y2 - y1));
    if (distance < least) [best, least] = [i, distance];
  }
  return best;
}

/**
 * Path data of the caret, or of the area of what is selected, which lies between carets of one line.
 * @param {number[]} carets
 * @param {string} words
 * @param {number} from
 * @param {number} to
 * @returns {{ caret: string, selection: string }}
 */
export function selectionQuads(carets, words, from, to) {
  const at = (/** @type {number} */ i) => carets.slice(i * 4, i * 4 + 4);
  if (from === to) {
    const [x1, y1, x2, y2] = at(from);
    return { caret: x1 === undefined ? "" : `M${x1} ${y1}L${x2} ${y2}`, selection: "" };
  }
  let selection = "";
  for (let i = from; i < to; i++) {
    const [a, b] = [at(i), at(i + 1)];
    // A line feed is no letter, and what is broken to the next line lies there.
    if (words[i] === "\n" || b.length < 4 || Math.hypot(a[0] - b[0], a[1] - b[1]) > 6 * Math.hypot(a[0] - a[2], a[1] - a[3])) continue;
    selection += `M${a[0]} ${a[1]}L${b[0]} ${b[1]}L${b[2]} ${b[3]}L${a[2]} ${a[3]}Z`;
  }
  return { caret: "", selection };
}
