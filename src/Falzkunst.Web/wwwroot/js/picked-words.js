// @ts-check
// What is picked, in the words of the server: pieces as "p1,p4"; lines as "p1:l3,l5;p2:l1", where "l3~l90" is from one to another
// in the order of the piece and "@1f2e" all lines of a kind; "none". Elsewhere it is the key of a sheet, stock or file; copies on
// sheets stand behind a stock as "kraft-240:p1.1,p4.2". Nothing here asks the page, so that workers and tests can read it too.

const LONG = 1500; // characters, more than which go into no address

/** @typedef {{ piece: string, ids: string[] }} Word */

/**
 * The parts of a key as they are written.
 * @param {string | undefined} key
 * @returns {{ pieces: string[], words: Word[] }}
 */
export function read(key) {
  if (!key || key === "none") return { pieces: [], words: [] };
  if (!key.includes(":")) return { pieces: key.split(","), words: [] };
  const words = key.split(";").map((part) => {
    const [piece, ids] = part.split(":");
    return { piece, ids: ids ? ids.split(",") : [] };
  });
  return { pieces: words.map((w) => w.piece), words };
}

/**
 * Pieces, or lines by piece, as a key.
 * @param {{ pieces: string[], lines?: string[] }} picked
 */
export function write({ pieces, lines = [] }) {
  if (lines.length === 0) return pieces.length === 0 ? "none" : pieces.join(",");
  /** @type {Map<string, string[]>} */
  const byPiece = new Map();
  for (const { piece, id } of lines.map(parts)) {
    const ids = byPiece.get(piece);
    if (ids) ids.push(id);
    else byPiece.set(piece, [id]);
  }
  return [...byPiece].map(([piece, ids]) => `${piece}:${ids.join(",")}`).join(";");
}

/**
 * A line of a piece as one word.
 * @param {string} piece
 * @param {string} id
 */
export const lineOf = (piece, id) => `${piece}/${id}`;

/** @param {string} line */
export function parts(line) {
  const at = line.indexOf("/");
  return { piece: line.slice(0, at), id: line.slice(at + 1) };
}

/**
 * A copy on a sheet as it stands in the key.
 * @param {{ piece: string, copy: number }} item
 */
export const copyOf = (item) => `${item.piece}.${item.copy}`;

/**
 * What a key means in a scene: ids of the pieces concerned, and the lines one by one.
 * @param {string} key
 * @param {SceneItem[]} items
 * @returns {Picked}
 */
export function resolve(key, items) {
  const { pieces, words } = read(key);
  const lines = words.flatMap(({ piece, ids }) => {
    const item = items.find((i) => i.piece === piece);
    return ids.flatMap((id) => expanded(id, item?.lines ?? [])).map((id) => lineOf(piece, id));
  });
  return { pieces, lines: [...new Set(lines)] };
}

/**
 * @param {string} word
 * @param {SceneLine[]} lines
 */
function expanded(word, lines) {
  if (word.startsWith("@")) return lines.filter((l) => l.kind === word.slice(1)).map((l) => l.id);
  const [from, to] = word.split("~");
  if (to === undefined) return [from];
  const ids = lines.map((l) => l.id);
  const [a, b] = [ids.indexOf(from), ids.lastIndexOf(to)];
  return a >= 0 && b >= a ? ids.slice(a, b + 1) : [];
}

/**
 * What of a key may stand in an address.
 * @param {string} key
 */
export const short = (key) => (key.length > LONG ? read(key).pieces.join(",").slice(0, LONG) : key);

/**
 * The pick with a piece added, or without it where it was picked already.
 * @param {Picked} picked
 * @param {string} piece
 */
export function toggled({ pieces, lines }, piece) {
  if (lines.length) return { pieces: [...new Set([...pieces, piece])], lines: [] };
  return { pieces: pieces.includes(piece) ? pieces.filter((p) => p !== piece) : [...pieces, piece], lines: [] };
}

/**
 * The pick with a line added, or without it.
 * @param {Picked} picked
 * @param {string} line
 */
export function toggledLine({ pieces, lines }, line) {
  const left = lines.includes(line) ? lines.filter((l) => l !== line) : [...lines, line];
  return left.length ? { pieces, lines: left } : { pieces: [parts(line).piece], lines: [] };
}
