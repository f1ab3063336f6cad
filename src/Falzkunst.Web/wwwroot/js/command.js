// Everything that is done by hand or key is said to the server as a command, the same that can be typed.
export const mm = n => `${Number(n.toFixed(4))}mm`;

export function command(text) {
  return htmx.ajax("POST", "?handler=Command", { source: "#doer", target: "#tray", swap: "none", values: { text } });
}
