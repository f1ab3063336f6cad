// Nodes and handles of one line, numbered as the server numbers them: a closed line's way back to its start is a segment too.
const TOKEN = /([MLCZ])([^MLCZ]*)/g;

/** Start and segments of a path in the shape's own coordinates. */
export function parse(d) {
  let start = null, at = null, closed = false;
  const segments = [];
  for (const [, letter, text] of d.matchAll(TOKEN)) {
    const n = text.trim().split(/[ ,]+/).map(Number);
    if (letter === "M") start = at = { x: n[0], y: n[1] };
    else if (letter === "L") segments.push({ from: at, to: (at = { x: n[0], y: n[1] }) });
    else if (letter === "C") segments.push({ from: at, one: { x: n[0], y: n[1] }, two: { x: n[2], y: n[3] }, to: (at = { x: n[4], y: n[5] }) });
    else closed = true;
  }
  if (closed && (at.x !== start.x || at.y !== start.y)) segments.push({ from: at, to: start });
  return { start, segments, closed };
}

/** The nodes in order. */
export function nodesOf({ start, segments, closed }) {
  const all = [start, ...segments.map(s => s.to)];
  return closed ? all.slice(0, -1) : all;
}

/** The handles of curves: { segment, first, at, of } with the node each belongs to. */
export function handlesOf({ segments }) {
  return segments.flatMap((s, segment) => s.one ? [{ segment, first: true, at: s.one, of: s.from }, { segment, first: false, at: s.two, of: s.to }] : []);
}

/** The place on the line nearest to a point: { segment, t, distance }. */
export function nearestOn({ segments }, p) {
  let best = { segment: 0, t: 0.5, distance: Infinity };
  segments.forEach((s, segment) => {
    const steps = s.one ? 40 : 100;
    for (let i = 1; i < steps; i++) {
      const t = i / steps, q = at(s, t), distance = Math.hypot(q.x - p.x, q.y - p.y);
      if (distance < best.distance) best = { segment, t, distance };
    }
  });
  return best;
}

function at(s, t) {
  const u = 1 - t;
  if (!s.one) return { x: s.from.x * u + s.to.x * t, y: s.from.y * u + s.to.y * t };
  const mix = k => s.from[k] * u ** 3 + 3 * s.one[k] * u * u * t + 3 * s.two[k] * u * t * t + s.to[k] * t ** 3;
  return { x: mix("x"), y: mix("y") };
}

/** The path with one node or handle elsewhere, for the hand to see. */
export function bent(path, { node, handle }, to) {
  const copy = { ...path, segments: path.segments.map(s => ({ ...s })) };
  if (handle) {
    const s = copy.segments[handle.segment];
    if (handle.first) s.one = to; else s.two = to;
    return copy;
  }
  const from = nodesOf(path)[node], by = { x: to.x - from.x, y: to.y - from.y };
  const shift = p => p && { x: p.x + by.x, y: p.y + by.y };
  const before = node > 0 ? node - 1 : path.closed ? copy.segments.length - 1 : -1;
  if (before >= 0) Object.assign(copy.segments[before], { to, two: shift(copy.segments[before].two) });
  if (node < copy.segments.length) Object.assign(copy.segments[node], { from: to, one: shift(copy.segments[node].one) });
  if (node === 0) copy.start = to;
  return copy;
}

export const write = ({ start, segments, closed }) => `M${start.x} ${start.y}` +
  segments.map(s => s.one ? `C${s.one.x} ${s.one.y} ${s.two.x} ${s.two.y} ${s.to.x} ${s.to.y}` : `L${s.to.x} ${s.to.y}`).join("") + (closed ? "Z" : "");
