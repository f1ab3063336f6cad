// Scenes and paths for tests, without a browser.

/** An item of straight closed lines, each a list of corners; the first is its outline. */
export function item(piece, rings, { map = [1, 0, 0, 1, 0, 0], place = map, roles = [] } = {}) {
  const xs = rings[0].map((p) => p[0]);
  const ys = rings[0].map((p) => p[1]);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return {
    piece,
    copy: 1,
    map,
    place,
    name: piece,
    shape: piece,
    fill: "#fff",
    locked: false,
    version: piece,
    scores: {},
    fills: {},
    lines: rings.map((_, i) => ({ id: `l${i + 1}`, op: "cut", role: i === 0 ? "o" : (roles[i] ?? "i"), kind: "k" })),
    size: { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y, widthText: "", heightText: "" },
    paths: rings.map((ring) => `M${ring.map((p) => p.join(" ")).join("L")}Z`),
  };
}

export const square = (x, y, side) => [
  [x, y],
  [x + side, y],
  [x + side, y + side],
  [x, y + side],
];

export const layout = (items, more = {}) => ({ name: "spread", box: [0, 0, 1, 1], frames: [], loose: [], pins: [], items, ...more });

export const scene = (items) => ({ shapes: Object.fromEntries(items.map((i) => [i.shape, i.paths])) });

const ringsOf = (d) =>
  d
    .split("Z")
    .filter(Boolean)
    .map((part) =>
      part
        .slice(1)
        .split("L")
        .map((p) => p.split(" ").map(Number)),
    );

const crossings = (rings, p) =>
  rings
    .flatMap((ring) => ring.map((a, i) => [a, ring[(i + 1) % ring.length]]))
    .filter(([a, b]) => a[1] > p.y !== b[1] > p.y && p.x < ((b[0] - a[0]) * (p.y - a[1])) / (b[1] - a[1]) + a[0]).length;

function distance(p, a, b) {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const t = Math.min(1, Math.max(0, ((p.x - a[0]) * dx + (p.y - a[1]) * dy) / (dx * dx + dy * dy)));
  return Math.hypot(a[0] + t * dx - p.x, a[1] + t * dy - p.y);
}

/** What a browser answers about path data, for closed straight lines: rings that do not cross, so that both fill rules agree but for nesting. */
export const straightPaths = {
  contains: (d, p, rule) => (rule === "evenodd" ? crossings(ringsOf(d), p) % 2 === 1 : ringsOf(d).some((r) => crossings([r], p) % 2 === 1)),
  isInStroke: (d, p, width) => ringsOf(d).some((ring) => ring.some((a, i) => distance(p, a, ring[(i + 1) % ring.length]) <= width / 2)),
  bounds: (d) => {
    const all = ringsOf(d).flat();
    const [x, y] = [Math.min(...all.map((p) => p[0])), Math.min(...all.map((p) => p[1]))];
    return { x, y, width: Math.max(...all.map((p) => p[0])) - x, height: Math.max(...all.map((p) => p[1])) - y };
  },
};

/** Random numbers from a seed (mulberry32), so that a run can be had again. */
export function random(seed) {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  };
}
