// @ts-check
// What every page runs. Rules live on the server; here is only what lies between two requests.
import "./requests.js";
import "./refusals.js";
import "./selection.js";
import "./tabs.js";
import "./parts.js";
import "./keys.js";
import "./files.js";
import "./arranging.js";
import "./lengths.js";
import "./commands.js";
import "./detail.js";
import "./drawer.js";
import "./light-table/light-table.js";
import "./picture-view.js";
import "./run-progress.js";
import "./jobs.js";
