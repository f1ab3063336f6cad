const SVG = "http://www.w3.org/2000/svg";

/** A new SVG element at the end of a parent. */
export function element(parent, name, attributes, text) {
  const e = document.createElementNS(SVG, name);
  for (const [key, value] of Object.entries(attributes)) e.setAttribute(key, value);
  if (text !== undefined) e.textContent = text;
  parent.append(e);
  return e;
}
