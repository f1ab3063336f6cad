// @ts-check
const SVG = "http://www.w3.org/2000/svg";

/**
 * A new SVG element at the end of a parent.
 * @template {keyof SVGElementTagNameMap} N
 * @param {Element} parent
 * @param {N} name
 * @param {Record<string, string | number>} attributes
 * @param {string | number} [text]
 */
export function element(parent, name, attributes, text) {
  const e = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) e.setAttribute(key, String(value));
  if (text !== undefined) e.textContent = String(text);
  parent.append(e);
  return e;
}
