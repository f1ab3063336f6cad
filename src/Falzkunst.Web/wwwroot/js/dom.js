// @ts-check
// Short ways to ask the page, with types.

/**
 * The nearest element about what an event is about.
 * @param {Event} event
 * @param {string} which
 * @returns {HTMLElement | null}
 */
export const about = (event, which) => (event.target instanceof Element ? event.target.closest(which) : null);

/**
 * @param {string} which
 * @param {ParentNode} within
 * @returns {HTMLElement[]}
 */
export const all = (which, within = document) => [.../** @type {NodeListOf<HTMLElement>} */ (within.querySelectorAll(which))];

/** @returns {HTMLInputElement | null} */
export const field = (/** @type {string} */ id) => /** @type {HTMLInputElement | null} */ (document.getElementById(id));

/** @returns {HTMLDialogElement | null} */
export const dialog = (/** @type {string} */ id) => /** @type {HTMLDialogElement | null} */ (document.getElementById(id));

/**
 * Which way each arrow goes, to the right and down.
 * @type {Record<string, [number, number]>}
 */
export const ARROWS = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] };

/** Opens the command line. */
export const openCommands = () => {
  document.getElementById("commands")?.dispatchEvent(new CustomEvent("open-commands"));
};
