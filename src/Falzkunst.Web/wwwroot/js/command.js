// Everything that is done by hand or key is said to the server; nearly all of it as a command, the same that can be typed.
export const mm = n => `${Number(n.toFixed(4))}mm`;

/** Posts to a handler of the page; what is posted waits for what was posted before. */
export const post = (handler, values) => htmx.ajax("POST", `?handler=${handler}`, { source: "#doer", target: "#tray", swap: "none", values });

export const command = text => post("Command", { text });
