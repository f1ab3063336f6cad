// What is picked, as the server writes it: "p1,p4", "p1:l3,l5", or "none". Stations with one thing at a time have just its key.
export function read(key) {
  if (!key || key === "none") return { pieces: [], lines: [] };
  const [pieces, lines] = key.split(":");
  return { pieces: pieces.split(","), lines: lines ? lines.split(",") : [] };
}

export function write({ pieces, lines }) {
  return pieces.length === 0 ? "none" : pieces.join(",") + (lines.length ? ":" + lines.join(",") : "");
}

/** A copy on a sheet as it stands in the key, in the place of a line. */
export const copyOf = item => `${item.piece}.${item.copy}`;

export const now = () => read(document.body.dataset.selected);

/** The pick with a piece added, or without it where it was picked already. */
export function toggled({ pieces, lines }, piece) {
  if (lines.length) return { pieces: [...new Set([...pieces, piece])], lines: [] };
  return { pieces: pieces.includes(piece) ? pieces.filter(p => p !== piece) : [...pieces, piece], lines: [] };
}

/** The pick with a line of its piece added, or without it. */
export function toggledLine({ pieces, lines }, line) {
  return { pieces, lines: lines.includes(line) ? lines.filter(l => l !== line) : [...lines, line] };
}
