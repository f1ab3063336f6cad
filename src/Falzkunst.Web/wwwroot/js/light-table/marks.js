// How the line of each operation is drawn: pattern first, colour second; widths and dashes in pixels whatever the zoom.
/**
 * Draws a path in its operation's manner and a colour; unit is the length of one pixel in the path's own units. The mark says
 * what is unusual: a mountain fold has dots between its dashes, a half cut is a hair with a shadow, work from the back is pale.
 */
export function strokes(g, operation, colour, path, unit, paper, mark = "") {
  if (mark.includes("b")) {
    g.save();
    g.globalAlpha *= 0.55;
    strokes(g, operation, colour, path, unit, paper, mark.replace("b", ""));
    return g.restore();
  }
  const line = (style, width, dash = [], cap = "butt") => {
    g.strokeStyle = style;
    g.lineWidth = width * unit;
    g.setLineDash(dash.map(d => d * unit));
    g.lineCap = cap;
    g.lineJoin = "round";
    g.stroke(path);
  };
  switch (operation) {
    case "score": return line(colour, 1.6, mark.includes("m") ? [10, 3, 2, 3] : [10, 4]);
    case "cut": if (mark.includes("h")) {
      line("rgba(36,49,58,.28)", 4);
      return line(colour, 0.8);
    }
      return line(colour, 1.6);
    case "perforate": return line(colour, 1.6, [4, 4]);
    case "draw":
      line("rgba(255,255,255,.6)", 2.6, [], "round");
      return line(colour, 1.1, [], "round");
    case "foil":
      line(colour, 3.4);
      return line(paper, 1.2);
    case "emboss": return line(colour, 2.6, [0.01, 4.6], "round");
    case "print":
      g.save();
      g.globalAlpha *= 0.35;
      g.fillStyle = colour;
      g.fill(path);
      return g.restore();
    case "aid": return line(colour, 1, [0.01, 3], "round");
    default: return line(colour, 1.6);
  }
}
