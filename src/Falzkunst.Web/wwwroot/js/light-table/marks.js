// How the line of each operation is drawn: pattern first, colour second; widths and dashes in pixels whatever the zoom.
const COLOURS = { cut: "#24313A", score: "#0F857F", perforate: "#4C7A2F", draw: "#7B4BA8", foil: "#B98300", emboss: "#A3527A", print: "#5B6F91", aid: "#9AA3A8" };

/** Draws a path in its operation's manner; unit is the length of one pixel in the path's own units. */
export function strokes(g, operation, ink, path, unit, paper) {
  const colour = ink ?? COLOURS[operation] ?? COLOURS.cut;
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
      g.fillStyle = "rgba(91,111,145,.35)";
      return g.fill(path);
    case "aid": return line(colour, 1, [0.01, 3], "round");
    default: return line(colour, 1.6);
  }
}
