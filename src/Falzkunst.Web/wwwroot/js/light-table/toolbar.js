// @ts-check
// The few buttons on the table itself: ways of laying out, the grid, everything in view.
/** @type {Record<string, string>} */
const MODE_NAMES = { spread: "Spread out", stacked: "Stacked" };

/**
 * @param {HTMLElement} bar
 * @param {{ modes: string[], hasGrid: boolean, lay: (mode: string) => void, toggleGrid: () => void, fit: () => void }} use
 */
export function fill(bar, { modes, hasGrid, lay, toggleGrid, fit }) {
  const add = (/** @type {string} */ text, /** @type {() => void} */ act) => {
    const button = document.createElement("button");
    Object.assign(button, { type: "button", textContent: text, onclick: act });
    bar.append(button);
    return button;
  };
  for (const mode of modes) add(MODE_NAMES[mode] ?? mode, () => lay(mode)).dataset.mode = mode;
  if (hasGrid) add("Grid", toggleGrid).dataset.grid = "";
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
 * @param {boolean} isOn
 */
export function showGrid(bar, isOn) {
  for (const b of buttons(bar, "[data-grid]")) b.setAttribute("aria-pressed", String(isOn));
}

/** @returns {NodeListOf<HTMLElement>} */
const buttons = (/** @type {HTMLElement} */ bar, /** @type {string} */ which) => bar.querySelectorAll(which);
