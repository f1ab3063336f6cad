// Gives every file of a folder to the lab and to a server; run by scripts/hostile. An answer takes five seconds at most, the server
// stays alive and below 600 MB more than when it was idle, and an ordinary file is read right afterwards.
import { spawnSync } from "node:child_process";
import { readFileSync, readdirSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { drop, serve } from "./server.mjs";

const [folder, part] = process.argv.slice(2);
const root = join(dirname(fileURLToPath(import.meta.url)), "..", "..");
const SECONDS = 5, MEGABYTES = 600;
const name = "falzkunst_hostile";
const server = await serve(name, 23900 + Math.floor(Math.random() * 90));
const ordinary = readFileSync(join(root, "src/Falzkunst.Web/Demo/night-tram.svg"));
const resident = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, "utf8"))[1]) / 1024;

const cookies = new Map();
let token = "";
async function ask(path, options = {}) {
  const answer = await fetch(server.address + path, { redirect: "manual", ...options, headers: { ...options.headers, cookie: [...cookies].map(c => c.join("=")).join("; ") } });
  for (const set of answer.headers.getSetCookie()) cookies.set(...set.split(";")[0].split(/=(.*)/s).slice(0, 2));
  return answer;
}
async function begin(title) {
  token = /name="__RequestVerificationToken"[^>]*value="([^"]+)"/.exec(await (await ask("/")).text())[1];
  const made = await ask("/", { method: "POST", body: new URLSearchParams({ name: title, __RequestVerificationToken: token }) });
  return /projects\/([0-9a-f-]+)/.exec(made.headers.get("location"))[1];
}
async function bring(id, head, title, bytes) {
  const form = new FormData();
  form.append("files", new Blob([bytes]), `${title}.svg`);
  const begun = performance.now();
  const answer = await ask(`/projects/${id}/art?handler=BringIn`, { method: "POST", body: form, headers: { "X-Falzkunst-Token": token, "X-Project-Head": String(head), "HX-Request": "true" } });
  const text = await answer.text();
  const notice = /class="notice"[^>]*>([\s\S]*?)<\/div>/.exec(text)?.[1].replace(/<[^>]+>/g, " ").replace(/\s+/g, " ").trim() ?? "";
  return { status: answer.status, seconds: (performance.now() - begun) / 1000, notice };
}

let bad = 0;
const idle = resident();
let largest = idle;
const watch = setInterval(() => largest = Math.max(largest, resident()), 20);
try {
  await bring(await begin("first"), 1, "first", ordinary);
  for (const file of readdirSync(folder).filter(f => f.includes(part)).sort()) {
    const lab = performance.now();
    const said = spawnSync(join(root, "lab"), ["pieces", join(folder, file)], { encoding: "utf8", maxBuffer: 1e9 });
    const labSeconds = (performance.now() - lab) / 1000;
    const id = await begin(file.slice(0, 100));
    const answer = await bring(id, 1, file, readFileSync(join(folder, file)));
    const pages = performance.now();
    const opened = [];
    for (const station of ["art", "pieces", "detail", "sheets", "run"]) opened.push((await ask(`/projects/${id}/${station}`)).status);
    const pageSeconds = (performance.now() - pages) / 1000;
    const after = await bring(await begin(`after ${file}`.slice(0, 100)), 1, "ordinary", ordinary);
    const wrong = [
      ![0, 2].includes(said.status) && `lab ended with ${said.status}`, labSeconds > SECONDS && "lab too slow",
      answer.status >= 500 && `server answered ${answer.status}`, answer.seconds > SECONDS && "server too slow", answer.status !== 200 && answer.notice === "" && "no sentence",
      opened.some(s => s !== 200) && `pages answered ${opened}`, pageSeconds > SECONDS && "pages too slow", after.status !== 200 && `the ordinary file afterwards: ${after.status}`,
    ].filter(Boolean);
    if (wrong.length > 0) bad++;
    console.log(`${wrong.length > 0 ? "✗" : "·"} ${file.padEnd(46)} lab ${said.status} ${labSeconds.toFixed(1)} s, server ${answer.status} ${answer.seconds.toFixed(1)} s, pages ${pageSeconds.toFixed(1)} s, after ${after.seconds.toFixed(2)} s, ${Math.round(resident())} MB  ${wrong.join("; ")}${answer.notice ? `  “${answer.notice.slice(0, 110)}”` : ""}`);
  }
} finally {
  clearInterval(watch);
  await server.end();
  drop(name);
}
if (largest - idle > MEGABYTES) bad++;
console.log(`idle ${Math.round(idle)} MB, largest ${Math.round(largest)} MB; ${bad} wrong`);
process.exitCode = bad > 0 ? 1 : 0;
