// @ts-check
// Mats, sheets, borders and cards under the pieces.
import { strokes } from "./marks.js";

const GRID_SCALE = 0.5; // px per mm, from which a mat's points are seen

/** @typedef {OffscreenCanvasRenderingContext2D} Context */
/** @typedef {(operation: string) => string} Colours */

/**
 * @param {Context} g
 * @param {SceneFrame} frame
 * @param {number} scale
 * @param {Colours} colours
 */
export function paintFrame(g, frame, scale, colours) {
  g.setLineDash([]);
  const px = 1 / scale;
  const [x0, y0, x1, y1] = frame.box;
  switch (frame.kind) {
    case "mat":
      paintMat(g, frame.box, scale);
      break;
    case "sheet":
      paintSheet(g, frame, px);
      break;
    case "border":
      edge(g, frame.box, "rgba(255,255,255,.95)", 1.2 * px, [4 * px, 4 * px]);
      break;
    case "foil":
      g.fillStyle = `${frame.fill ?? "#B98300"}22`;
      g.fillRect(x0, y0, x1 - x0, y1 - y0);
      edge(g, frame.box, frame.fill ?? "#B98300", 1.4 * px, [6 * px, 3 * px]);
      break;
    case "printable":
      edge(g, frame.box, "rgba(70,120,150,.75)", px, [3 * px, 3 * px]);
      break;
    case "zone":
      g.fillStyle = "rgba(240,180,74,.18)";
      g.fillRect(x0, y0, x1 - x0, y1 - y0);
      edge(g, frame.box, "rgba(154,106,0,.7)", px, [4 * px, 3 * px]);
      break;
    case "guide":
      edge(g, frame.box, "rgba(31,43,51,.45)", px, [2 * px, 5 * px]);
      break;
    case "card":
      g.fillStyle = "#FFFFFF";
      g.fillRect(x0, y0, x1 - x0, y1 - y0);
      edge(g, frame.box, colours("cut"), 1.6 * px, []);
      break;
    default: {
      const line = new Path2D();
      line.moveTo(x0, y0);
      line.lineTo(x1, y1);
      const operation = frame.kind === "fold" ? "score" : "cut";
      strokes(g, operation, colours(operation), line, px, "#FFFFFF");
    }
  }
}

/**
 * @param {Context} g
 * @param {Box} box
 * @param {number} scale
 */
function paintMat(g, [x0, y0, x1, y1], scale) {
  g.fillStyle = "#E3DBCA";
  g.beginPath();
  g.roundRect(x0, y0, x1 - x0, y1 - y0, 4);
  g.fill();
  if (scale <= GRID_SCALE) return;
  g.fillStyle = "#D3C9B5";
  for (let x = x0 + 5; x < x1; x += 10) for (let y = y0 + 5; y < y1; y += 10) g.fillRect(x, y, 1.4 / scale, 1.4 / scale);
}

/**
 * @param {Context} g
 * @param {SceneFrame} frame
 * @param {number} px
 */
function paintSheet(g, { box: [x0, y0, x1, y1], fill, path }, px) {
  const paper = new Path2D(path);
  if (!path) paper.rect(x0, y0, x1 - x0, y1 - y0);
  g.fillStyle = fill ?? "#FFFFFF";
  g.fill(paper, "evenodd");
  g.fillStyle = "rgba(255,255,255,.38)";
  g.fill(paper, "evenodd");
  g.strokeStyle = "rgba(36,49,58,.45)";
  g.lineWidth = px;
  g.stroke(paper);
}

/**
 * @param {Context} g
 * @param {Box} box
 * @param {string} style
 * @param {number} width
 * @param {number[]} dash
 */
function edge(g, [x0, y0, x1, y1], style, width, dash) {
  g.setLineDash(dash);
  g.strokeStyle = style;
  g.lineWidth = width;
  g.strokeRect(x0, y0, x1 - x0, y1 - y0);
}
