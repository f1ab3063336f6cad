// Rulers as fine ticks on two edges. On canvases of their own: some fifty labels a frame cost little here, much as elements.
export const INCH = 25.4;
const QUIET = "#556169", TICK = "#8F8878";
const FINE = 4, MAJOR = 9; // px

/** The finest step of 1, 2, 5 times a power of ten, in units, that leaves room (px) for its label. */
export function stepFor(view, unit, room) {
  const wanted = room / (view.scale * unit);
  const power = 10 ** Math.floor(Math.log10(wanted));
  return [1, 2, 5, 10].map(k => k * power).find(s => s >= wanted) ?? 10 * power;
}

export function number(value) {
  return String(Math.round(value * 1000) / 1000).replace("-", "−");
}

/** Draws the ruler along the top and the one along the left edge. */
export function drawRulers(top, left, { view, width, height, inches }) {
  const unit = inches ? INCH : 1, step = stepFor(view, unit, 52), from = view.toTable(0, 0), to = view.toTable(width, height);
  const across = open(top, width, 14);
  ticks(from.x, to.x, unit, step, (value, major) => {
    const x = Math.round(view.toScreen(value * unit, 0).x);
    across.fillStyle = TICK;
    across.fillRect(x, 0, 1, major ? MAJOR : FINE);
    if (!major || x < 26) return;
    across.fillStyle = QUIET;
    across.fillText(number(value), x + 3, 10);
  });
  const down = open(left, 34, height);
  ticks(from.y, to.y, unit, step, (value, major) => {
    const y = Math.round(view.toScreen(0, value * unit).y);
    down.fillStyle = TICK;
    down.fillRect(0, y, major ? MAJOR : FINE, 1);
    if (!major || y < 22) return;
    down.fillStyle = QUIET;
    down.fillText(number(value), 2, y - 3);
  });
}

function open(canvas, width, height) {
  const k = devicePixelRatio, w = Math.round(width * k), h = Math.round(height * k), g = canvas.getContext("2d");
  if (canvas.width !== w || canvas.height !== h) [canvas.width, canvas.height] = [w, h];
  g.setTransform(k, 0, 0, k, 0, 0);
  g.clearRect(0, 0, width, height);
  g.font = "10px Figtree, sans-serif";
  return g;
}

// Five fine ticks to a labelled one.
function ticks(low, high, unit, step, put) {
  const fine = step / 5, first = Math.ceil(low / unit / fine), last = Math.floor(high / unit / fine);
  for (let i = first; i <= last && i - first < 2000; i++) put(i * fine, i % 5 === 0);
}
