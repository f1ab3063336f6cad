// How many pages a second fifty readers get, and how long the slowest hundredth waits; run by scripts/measure-load.
import { execFileSync } from "node:child_process";
import { drop, serve } from "./server.mjs";
import { client } from "./client.mjs";

const seconds = process.argv[2];
const name = "falzkunst_load";
const server = await serve(name, 23990);

function load(path) {
  const said = execFileSync("wrk", ["-t2", "-c50", `-d${seconds}s`, "--latency", server.address + path], { encoding: "utf8" });
  const rate = Number(/Requests\/sec:\s+([\d.]+)/.exec(said)[1]),
    wait = /\n\s+99%\s+(\S+)/.exec(said)[1];
  const errors = [/Non-2xx[^:]*: (\d+)/.exec(said)?.[1], /Socket errors: (.*)/.exec(said)?.[1]].filter(Boolean);
  console.log(
    `  ${path.replace(/[0-9a-f-]{36}/, "…").padEnd(28)} ${rate.toFixed(0).padStart(6)} a second, 99 % within ${wait}${errors.length > 0 ? `, ERRORS ${errors}` : ""}`,
  );
}

try {
  const desk = client(server.address);
  const demo = await desk.demo();
  while ((await desk.projects()) < 200) await desk.begin(`Card ${Math.random()}`);
  const pages = ["/", ...["set-out", "art", "pieces", "detail", "sheets", "run"].map((s) => `/projects/${demo}/${s}`)];
  for (const page of pages) await desk.get(page);
  console.log("idle");
  for (const page of pages) load(page);
  console.log("while pieces settle");
  await desk.post(`/projects/${demo}/sheets?handler=Settle`, { stock: "kraft-240", seconds: "600" }, await desk.head(demo));
  for (const page of pages) load(page);
  const touches = [];
  for (let i = 0; i < 20; i++) {
    const begun = performance.now();
    await desk.post(`/projects/${demo}/set-out?handler=Clearance`, { clearance: String(1 + (i % 2)) }, await desk.head(demo));
    touches.push(performance.now() - begun);
  }
  console.log(
    `a touch while pieces settle: median ${touches.sort((a, b) => a - b)[10].toFixed(0)} ms, slowest ${touches.at(-1).toFixed(0)} ms`,
  );
} finally {
  await server.end();
  drop(name);
}
