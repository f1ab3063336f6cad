// Gives every file of a folder to the lab and to a server; run by scripts/hostile. An answer takes five seconds at most, the server
// stays alive and below 600 MB more than when it was idle, and an ordinary file is read right afterwards.
import { spawnSync } from "node:child_process";
import { readFileSync, readdirSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { client, noticeOf } from "./client.mjs";
import { drop, serve } from "./server.mjs";

const [folder, part] = process.argv.slice(2);
const root = join(dirname(fileURLToPath(import.meta.url)), "..", "..");
const SECONDS = 5,
  MEGABYTES = 600;
const name = "falzkunst_hostile";
const server = await serve(name, 23900 + Math.floor(Math.random() * 90));
const ordinary = readFileSync(join(root, "src/Falzkunst.Web/Demo/night-tram.svg"));
const lab = join(root, "src/Falzkunst.Lab/bin/Release/net10.0/Falzkunst.Lab.dll");
const resident = () => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${server.pid}/status`, "utf8"))[1]) / 1024;
const desk = client(server.address);

async function timed(work) {
  const begun = performance.now();
  return [await work(), (performance.now() - begun) / 1000];
}
async function bring(title, bytes) {
  const id = await desk.begin(title.slice(0, 100));
  const [answer, seconds] = await timed(() => desk.bring(id, 1, title, bytes));
  return { id, status: answer.status, seconds, notice: noticeOf(answer.text) };
}
async function openAll(id) {
  const statuses = [];
  for (const station of ["art", "pieces", "detail", "sheets", "run"]) statuses.push((await desk.ask(`/projects/${id}/${station}`)).status);
  return statuses;
}

let bad = 0;
const idle = resident();
let largest = idle;
const watch = setInterval(() => (largest = Math.max(largest, resident())), 20);
try {
  await bring("first", ordinary);
  for (const file of readdirSync(folder)
    .filter((f) => f.includes(part))
    .sort()) {
    const [said, labSeconds] = await timed(() =>
      spawnSync("dotnet", [lab, "pieces", join(folder, file)], { encoding: "utf8", maxBuffer: 1e9 }),
    );
    const answer = await bring(file, readFileSync(join(folder, file)));
    const [opened, pageSeconds] = await timed(() => openAll(answer.id));
    const after = await bring(`after ${file}`, ordinary);
    const wrong = [
      ![0, 2].includes(said.status) && `lab ended with ${said.status}`,
      labSeconds > SECONDS && "lab too slow",
      answer.status >= 500 && `server answered ${answer.status}`,
      answer.seconds > SECONDS && "server too slow",
      answer.status !== 200 && answer.notice === "" && "no sentence",
      opened.some((s) => s !== 200) && `pages answered ${opened}`,
      pageSeconds > SECONDS && "pages too slow",
      after.status !== 200 && `the ordinary file afterwards: ${after.status}`,
    ].filter(Boolean);
    if (wrong.length > 0) bad++;
    const figures = `lab ${said.status} ${labSeconds.toFixed(1)} s, server ${answer.status} ${answer.seconds.toFixed(1)} s, pages ${pageSeconds.toFixed(1)} s, after ${after.seconds.toFixed(2)} s, ${Math.round(resident())} MB`;
    console.log(
      `${wrong.length > 0 ? "✗" : "·"} ${file.padEnd(46)} ${figures}  ${wrong.join("; ")}${answer.notice ? `  “${answer.notice.slice(0, 110)}”` : ""}`,
    );
  }
} finally {
  clearInterval(watch);
  await server.end();
  drop(name);
}
if (largest - idle > MEGABYTES) bad++;
console.log(`idle ${Math.round(idle)} MB, largest ${Math.round(largest)} MB; ${bad} wrong`);
process.exitCode = bad > 0 ? 1 : 0;
