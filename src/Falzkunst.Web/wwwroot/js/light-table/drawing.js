// Shapes drawn by hand: what is seen while drawing, and the action that it becomes.
import { mm } from "../actions.js";

const field = id => document.getElementById(id)?.value.replaceAll(" ", "") ?? "";

function frame(a, b, isSquare) {
  const w = Math.abs(b.x - a.x), h = Math.abs(b.y - a.y), side = Math.max(w, h);
  const [width, height] = isSquare ? [side, side] : [w, h];
  return { x: b.x < a.x ? a.x - width : a.x, y: b.y < a.y ? a.y - height : a.y, width, height };
}

/** The end of a line that runs level, upright or at 45 degrees. */
function heldEnd(a, b) {
  const dx = b.x - a.x, dy = b.y - a.y, eighths = Math.round(Math.atan2(dy, dx) / (Math.PI / 4));
  if (eighths % 2) {
    const side = (Math.abs(dx) + Math.abs(dy)) / 2;
    return { x: a.x + Math.sign(dx) * side, y: a.y + Math.sign(dy) * side };
  }
  return eighths % 4 === 0 ? { x: b.x, y: a.y } : { x: a.x, y: b.y };
}

/** Handles of a curve from a to b that bulges to its left by a quarter of its length. */
function bulge(a, b) {
  const dx = b.x - a.x, dy = b.y - a.y;
  return [{ x: a.x + dx / 4 + dy / 3, y: a.y + dy / 4 - dx / 3 }, { x: a.x + dx * 0.75 + dy / 3, y: a.y + dy * 0.75 - dx / 3 }];
}

/** Path data to look at; the server draws the true shape. */
export function preview(shape, a, b, held) {
  if (shape === "line") {
    const end = held ? heldEnd(a, b) : b;
    return `M${a.x} ${a.y}L${end.x} ${end.y}`;
  }
  if (shape === "curve") {
    const [one, two] = bulge(a, b);
    return `M${a.x} ${a.y}C${one.x} ${one.y} ${two.x} ${two.y} ${b.x} ${b.y}`;
  }
  const { x, y, width: w, height: h } = frame(a, b, held), [rx, ry] = [w / 2, h / 2];
  const around = (count, share) => Array.from({ length: count }, (_, i) => {
    const t = 2 * Math.PI * i / count - Math.PI / 2, k = share(i);
    return `${x + rx * (1 + k * Math.cos(t))} ${y + ry * (1 + k * Math.sin(t))}`;
  }).join("L");
  const corners = Math.min(200, Math.max(3, Number(field("draw-corners")) || 6));
  switch (shape) {
    case "ellipse": return `M${x} ${y + ry}A${rx} ${ry} 0 1 1 ${x + w} ${y + ry}A${rx} ${ry} 0 1 1 ${x} ${y + ry}Z`;
    case "polygon": return `M${around(corners, () => 1)}Z`;
    case "star": return `M${around(2 * corners, i => i % 2 ? 0.45 : 1)}Z`;
    case "arch": return `M${x} ${y + Math.min(rx, h)}A${rx} ${Math.min(rx, h)} 0 0 1 ${x + w} ${y + Math.min(rx, h)}V${y + h}H${x}Z`;
    default: return `M${x} ${y}h${w}v${h}h${-w}Z`;
  }
}

/** The action that draws what was drawn, as its name and values; null for a touch without a stroke. */
export function actionFor(shape, a, b, held) {
  if (Math.hypot(b.x - a.x, b.y - a.y) < 0.2) return null;
  const what = { operation: field("draw-for") || "cut", apart: document.getElementById("draw-apart")?.checked ?? false };
  const name = `draw-${shape}`;
  if (shape === "line") return [name, { fromX: mm(a.x), fromY: mm(a.y), toX: mm(b.x), toY: mm(b.y), held, ...what }];
  if (shape === "curve") {
    const [one, two] = bulge(a, b);
    return [name, { fromX: mm(a.x), fromY: mm(a.y), firstX: mm(one.x), firstY: mm(one.y), secondX: mm(two.x), secondY: mm(two.y), toX: mm(b.x), toY: mm(b.y), ...what }];
  }
  const f = frame(a, b, held);
  if (f.width < 0.1 || f.height < 0.1) return null;
  const more = shape === "rectangle" && parseFloat(field("draw-radius")) > 0 ? { radius: field("draw-radius") }
    : shape === "polygon" ? { corners: field("draw-corners") || 6 } : shape === "star" ? { points: field("draw-corners") || 5 } : {};
  return [name, { x: mm(f.x), y: mm(f.y), width: mm(f.width), height: mm(f.height), ...more, ...what }];
}
