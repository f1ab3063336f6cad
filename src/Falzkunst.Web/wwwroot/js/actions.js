// What is done by hand or key is posted as an action with typed values; the server decides what it means for what is picked.
export const mm = n => `${Number(n.toFixed(4))}mm`;

/** Posts to a handler of the page; what is posted waits for what was posted before. */
export const post = (handler, values) => htmx.ajax("POST", `?handler=${handler}`, { source: "#doer", target: "#tray", swap: "none", values });

/** Does an action of the bench to what is picked, or to what `act-on` names. */
export const act = (name, values = {}) => post(`Do&act=${name}`, values);
