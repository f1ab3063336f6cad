// @ts-check
// The few buttons on the table itself: ways of laying out, the grid, everything in view.
/** @type {Record<string, string>} */
const MODE_NAMES = { spread: "Spread out", stacked: "Stacked", "printed-cut": "Printed and cut", printed: "Printed", cut: "Cut" };
/** @type {Record<Shown["what"], string>} what of the pieces is seen */
const WHAT_NAMES = { both: "Print and lines", printed: "Print alone", cut: "Lines alone" };

/**
 * @param {HTMLElement} bar
 * @param {{ modes: string[], hasGrid: boolean, lay: (mode: string) => void, toggleGrid: () => void, cycleWhat: () => void, fit: () => void }} use
 */
export function fill(bar, { modes, hasGrid, lay, toggleGrid, cycleWhat, fit }) {
  const add = (/** @type {string} */ text, /** @type {() => void} */ act) => {
    const button = document.createElement("button");
    Object.assign(button, { type: "button", textContent: text, onclick: act });
    bar.append(button);
    return button;
  };
  for (const mode of modes) add(MODE_NAMES[mode] ?? mode, () => lay(mode)).dataset.mode = mode;
  if (hasGrid) add("Grid", toggleGrid).dataset.grid = "";
  const what = add(WHAT_NAMES.both, cycleWhat);
  Object.assign(what, { title: "What is seen of the pieces: print and lines, print alone, lines alone", hidden: true }).dataset.what = "";
  add("Fit", fit);
  showMode(bar, modes[0] ?? "");
  showGrid(bar, false);
}

/**
 * @param {HTMLElement} bar
 * @param {string} mode
 */
export function showMode(bar, mode) {
  for (const b of buttons(bar, "[data-mode]")) b.setAttribute("aria-pressed", String(b.dataset.mode === mode));
}

/**
 * @param {HTMLElement} bar
 * @param {Shown["what"]} what
 * @param {boolean} hasPrints
 */
export function showWhat(bar, what, hasPrints) {
  for (const b of buttons(bar, "[data-what]")) {
    b.hidden = !hasPrints;
    b.textContent = WHAT_NAMES[what];
  }
}

/**
 * @param {HTMLElement} bar
 * @param {boolean} isOn
 */
export function showGrid(bar, isOn) {
  for (const b of buttons(bar, "[data-grid]")) b.setAttribute("aria-pressed", String(isOn));
}

/** @returns {NodeListOf<HTMLElement>} */
const buttons = (/** @type {HTMLElement} */ bar, /** @type {string} */ which) => bar.querySelectorAll(which);
