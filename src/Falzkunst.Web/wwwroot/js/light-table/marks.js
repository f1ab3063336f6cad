// @ts-check
// How the line of each operation is drawn: pattern first, colour second; widths and dashes in pixels whatever the zoom.
/**
 * Draws a path in its operation's way and a colour. The mark says what is unusual: a mountain fold has dots between its dashes, a
 * half cut is a hair with a shadow, work from the back is pale.
 * @param {OffscreenCanvasRenderingContext2D} g
 * @param {string} operation
 * @param {string} colour
 * @param {Path2D} path
 * @param {number} unit the length of one pixel in the path's own units
 * @param {string} paper
 * @param {string} mark
 */
export function strokes(g, operation, colour, path, unit, paper, mark = "") {
  if (mark.includes("b")) {
    g.save();
    g.globalAlpha *= 0.55;
    strokes(g, operation, colour, path, unit, paper, mark.replace("b", ""));
    g.restore();
    return;
  }
  /** @type {(style: string, width: number, dash?: number[], cap?: CanvasLineCap) => void} */
  const line = (style, width, dash = [], cap = "butt") => {
    g.strokeStyle = style;
    g.lineWidth = width * unit;
    g.setLineDash(dash.map((d) => d * unit));
    g.lineCap = cap;
    g.lineJoin = "round";
    g.stroke(path);
  };
  switch (operation) {
    case "score":
      line(colour, 1.6, mark.includes("m") ? [10, 3, 2, 3] : [10, 4]);
      break;
    case "cut":
      if (mark.includes("h")) line("rgba(36,49,58,.28)", 4);
      line(colour, mark.includes("h") ? 0.8 : 1.6);
      break;
    case "perforate":
      line(colour, 1.6, [4, 4]);
      break;
    case "draw":
      line("rgba(255,255,255,.6)", 2.6, [], "round");
      line(colour, 1.1, [], "round");
      break;
    case "foil":
      line(colour, 3.4);
      line(paper, 1.2);
      break;
    case "emboss":
      line(colour, 2.6, [0.01, 4.6], "round");
      break;
    case "print":
      g.save();
      g.globalAlpha *= 0.35;
      g.fillStyle = colour;
      g.fill(path);
      g.restore();
      break;
    case "aid":
      line(colour, 1, [0.01, 3], "round");
      break;
    default:
      line(colour, 1.6);
  }
}
