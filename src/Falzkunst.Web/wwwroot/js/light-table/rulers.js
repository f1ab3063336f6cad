// @ts-check
// Rulers as fine ticks on two edges. On canvases of their own: some fifty labels a frame cost little here, much as elements.
/** @typedef {import("./view.js").View} View */

export const INCH = 25.4;
const QUIET = "#556169";
const TICK = "#8F8878";
const [FINE, MAJOR] = [4, 9]; // px
const ROOM = 52; // px for a label
const MOST_TICKS = 2000;

/**
 * The finest step of 1, 2, 5 times a power of ten, in units, that leaves room for its label.
 * @param {View} view
 * @param {number} unit mm
 * @param {number} room px
 */
export function stepFor(view, unit, room) {
  const wanted = room / (view.scale * unit);
  const power = 10 ** Math.floor(Math.log10(wanted));
  return [1, 2, 5, 10].map((k) => k * power).find((s) => s >= wanted) ?? 10 * power;
}

/** @param {number} value */
export function number(value) {
  return String(Math.round(value * 1000) / 1000).replace("-", "−");
}

/**
 * Draws the ruler along the top and the one along the left edge.
 * @param {HTMLCanvasElement} top
 * @param {HTMLCanvasElement} left
 * @param {{ view: View, width: number, height: number, inches: boolean }} of
 */
export function drawRulers(top, left, { view, width, height, inches }) {
  const unit = inches ? INCH : 1;
  const step = stepFor(view, unit, ROOM);
  const from = view.toTable(0, 0);
  const to = view.toTable(width, height);
  const across = open(top, width, 14);
  for (const { value, isMajor } of ticks(from.x, to.x, unit, step)) {
    const x = Math.round(view.toScreen(value * unit, 0).x);
    across.fillStyle = TICK;
    across.fillRect(x, 0, 1, isMajor ? MAJOR : FINE);
    if (!isMajor || x < 26) continue;
    across.fillStyle = QUIET;
    across.fillText(number(value), x + 3, 10);
  }
  const down = open(left, 34, height);
  for (const { value, isMajor } of ticks(from.y, to.y, unit, step)) {
    const y = Math.round(view.toScreen(0, value * unit).y);
    down.fillStyle = TICK;
    down.fillRect(0, y, isMajor ? MAJOR : FINE, 1);
    if (!isMajor || y < 22) continue;
    down.fillStyle = QUIET;
    down.fillText(number(value), 2, y - 3);
  }
}

/**
 * @param {HTMLCanvasElement} canvas
 * @param {number} width
 * @param {number} height
 */
function open(canvas, width, height) {
  const k = devicePixelRatio;
  const [w, h] = [Math.round(width * k), Math.round(height * k)];
  const g = /** @type {CanvasRenderingContext2D} */ (canvas.getContext("2d"));
  if (canvas.width !== w || canvas.height !== h) [canvas.width, canvas.height] = [w, h];
  g.setTransform(k, 0, 0, k, 0, 0);
  g.clearRect(0, 0, width, height);
  g.font = "10px Figtree, sans-serif";
  return g;
}

/**
 * Five fine ticks to a labelled one, in units.
 * @param {number} low mm
 * @param {number} high mm
 * @param {number} unit mm
 * @param {number} step units
 */
export function ticks(low, high, unit, step) {
  const fine = step / 5;
  const first = Math.ceil(low / unit / fine);
  const last = Math.min(Math.floor(high / unit / fine), first + MOST_TICKS - 1);
  return Array.from({ length: Math.max(0, last - first + 1) }, (_, k) => ({ value: (first + k) * fine, isMajor: (first + k) % 5 === 0 }));
}
