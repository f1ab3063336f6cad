// @ts-check
// What is painted over the pieces: courses of width through thin material, and what a command would change.
const [NEAR_LIMIT, HALF_OF_IT] = [
  [0xe0, 0xa1, 0x00],
  [0x8c, 0x2d, 0x62],
];

/**
 * Along the middle line as broad as the material is there, in the colour of that width: all colour, no shadow over the edge.
 * @param {OffscreenCanvasRenderingContext2D} g
 * @param {SceneWidths[]} widths
 * @param {number} least mm
 */
export function paintWidths(g, widths, least) {
  g.setLineDash([]);
  g.lineCap = "round";
  for (const { line } of widths) {
    for (let i = 0; i < line.length; i += 3) {
      const [x, y, width] = line.slice(i, i + 3);
      const [toX, toY, toWidth] = i + 3 < line.length ? line.slice(i + 3, i + 6) : [x, y, width];
      const middle = (width + toWidth) / 2;
      const t = Math.min(1, Math.max(0, (least - middle) / (least / 2)));
      g.strokeStyle = `rgb(${NEAR_LIMIT.map((c, k) => Math.round(c + (HALF_OF_IT[k] - c) * t)).join()})`;
      g.lineWidth = middle;
      g.beginPath();
      g.moveTo(x, y);
      g.lineTo(toX, toY);
      g.stroke();
    }
  }
}

/**
 * What comes or goes, filled where only one of the two forms is.
 * @param {OffscreenCanvasRenderingContext2D} g
 * @param {PreviewPath[]} paths
 * @param {number} unit
 */
export function paintPreview(g, paths, unit) {
  g.setLineDash([]);
  g.lineWidth = 0.8 * unit;
  for (const { path: d, isNew } of paths) {
    const path = new Path2D(d);
    g.fillStyle = `rgba(14, 110, 102, ${isNew ? 0.35 : 0.85})`;
    g.fill(path, "evenodd");
    g.strokeStyle = "#062F2B";
    g.stroke(path);
  }
}
