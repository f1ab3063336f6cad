// How the line of each operation is drawn: pattern first, colour second; widths and dashes in pixels whatever the zoom.
/** Draws a path in its operation's manner and a colour; unit is the length of one pixel in the path's own units. */
export function strokes(g, operation, colour, path, unit, paper) {
  const line = (style, width, dash = [], cap = "butt") => {
    g.strokeStyle = style;
    g.lineWidth = width * unit;
    g.setLineDash(dash.map(d => d * unit));
    g.lineCap = cap;
    g.lineJoin = "round";
    g.stroke(path);
  };
  switch (operation) {
    case "score": return line(colour, 1.6, [10, 4]);
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
