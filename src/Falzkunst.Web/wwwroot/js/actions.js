// @ts-check
// What is done by hand or key is posted as an action with typed values; the server decides what it means for what is picked.
import { headers } from "./requests.js";

/** A length as the server reads it. */
export const mm = (/** @type {number} */ n) => `${Number(n.toFixed(4))}mm`;

/**
 * Posts to a handler of the page; what is posted waits for what was posted before.
 * @param {string} handler
 * @param {Record<string, unknown>} values
 */
export const post = (handler, values) =>
  htmx.ajax("POST", `?handler=${handler}`, { source: "#doer", target: "#tray", swap: "none", values });

/**
 * Does an action of the bench to what is picked, or to what `act-on` names.
 * @param {string} name
 * @param {Record<string, unknown>} values
 */
export const act = (name, values = {}) => post(`Do&act=${name}`, values);

/**
 * The line that an action would draw, bend or write, as path data of the card, with carets where it is words; nothing is done.
 * @param {string} name
 * @param {Record<string, unknown>} values
 * @returns {Promise<Sketched | null>}
 */
export async function sketch(name, values) {
  const answer = await asked(`Sketch&act=${name}`, values);
  return answer ? { d: answer.d, carets: answer.carets ?? [] } : null;
}

/**
 * Nodes and handles of the one picked line, in its piece's coordinates.
 * @returns {Promise<LineNodes | null>}
 */
export const nodesOfPick = () => asked("Nodes", {});

/**
 * @param {string} handler
 * @param {Record<string, unknown>} values
 */
async function asked(handler, values) {
  const body = new URLSearchParams({ picked: document.body.dataset.selected ?? "" });
  for (const [name, value] of Object.entries(values)) body.set(name, String(value));
  const answer = await fetch(`?handler=${handler}`, { method: "POST", headers: headers(), body });
  return answer.ok ? answer.json() : null;
}
