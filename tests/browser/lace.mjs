// Art for measurements: rosettes with openings, made up by number.
const PER_ROSETTE = 100;

/** So many segments in rosettes; all in one path, the hardest case for a painter, or each in its own. */
export function lace(segments, together) {
  const count = segments / PER_ROSETTE,
    side = Math.ceil(Math.sqrt(count));
  const ring = (x, y, radius, n) =>
    Array.from({ length: n + 1 }, (_, k) => {
      const a = (2 * Math.PI * k) / n,
        r = radius * (1 + 0.12 * Math.cos(5 * a)),
        h = radius * 0.05;
      const px = x + r * Math.cos(a),
        py = y + r * Math.sin(a);
      return k === 0
        ? `M${px.toFixed(4)} ${py.toFixed(4)}`
        : `S${(px + h * Math.sin(a)).toFixed(4)} ${(py - h * Math.cos(a)).toFixed(4)} ${px.toFixed(4)} ${py.toFixed(4)}`;
    }).join("") + "Z";
  const rosettes = Array.from({ length: count }, (_, i) => {
    const x = (i % side) * 10 + 5,
      y = Math.floor(i / side) * 10 + 5;
    return ring(x, y, 4.4, 60) + ring(x, y, 2, 40);
  });
  const size = side * 10;
  const body = together ? `<path d="M0 0H${size}V${size}H0Z${rosettes.join("")}"/>` : rosettes.map((d) => `<path d="${d}"/>`).join("");
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${size}mm" height="${size}mm" viewBox="0 0 ${size} ${size}" fill="none" stroke="#000" stroke-width=".1">${body}</svg>`;
}

export const rosettesIn = (segments) => segments / PER_ROSETTE;

/** Brings lace in on a page at a project's Art station, all of it, whether or not it is taken for a sheet of motifs. */
export async function bringInLace(page, segments, together) {
  await page
    .locator("#files")
    .setInputFiles({ name: "lace.svg", mimeType: "image/svg+xml", buffer: Buffer.from(lace(segments, together)) });
  const isShown = (head) =>
    page.waitForFunction((h) => document.body.dataset.head === h && document.querySelector("light-table").dataset.ready === h, head, {
      timeout: 120_000,
    });
  await isShown("2");
  const everything = page.getByRole("button", { name: "Bring in everything" });
  if (!(await everything.isVisible())) return;
  await everything.click();
  await isShown("3");
}
