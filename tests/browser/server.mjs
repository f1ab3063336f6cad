// The application on a database of the browser tests' own: prepared, served, stopped, and killed where a test wants that.
import { execFileSync, spawn } from "node:child_process";
import { writeFileSync, readFileSync, mkdirSync, openSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";

const root = join(dirname(fileURLToPath(import.meta.url)), "..", "..");
const web = join(root, "src", "Falzkunst.Web");
const program = join(web, "bin", "Release", "net10.0", "Falzkunst.Web.dll");
const database = join(root, "scripts", "database");
const folder = join(root, ".data", "browser-servers");

const environment = (text) => Object.fromEntries([...text.matchAll(/export (\w+)='([^']*)'/g)].map((m) => [m[1], m[2]]));

/** Makes a database with the demo data and serves it; gives the address and how to end it. */
export async function serve(name, port) {
  const connections = environment(execFileSync(database, ["scratch", name], { encoding: "utf8" }));
  execFileSync("dotnet", [program, "prepare"], { cwd: web, env: { ...process.env, ...connections }, stdio: "pipe" });
  return await startOn(connections, port);
}

/** Serves a database that is there already. */
export async function startOn(connections, port) {
  const address = `http://127.0.0.1:${port}`;
  mkdirSync(folder, { recursive: true });
  const log = join(folder, `${port}.log`);
  const out = openSync(log, "a");
  const child = spawn("dotnet", [program], {
    cwd: web,
    stdio: ["ignore", out, out],
    env: {
      ...process.env,
      ConnectionStrings__Falzkunst: connections.ConnectionStrings__Falzkunst,
      ASPNETCORE_URLS: address,
      ASPNETCORE_ENVIRONMENT: "Production",
    },
  });
  const gone = new Promise((resolve) => child.on("exit", resolve));
  for (let i = 0; ; i++) {
    try {
      if ((await fetch(address)).ok) break;
    } catch {
      if (child.exitCode !== null || i > 300) throw new Error(`The server did not start: ${readFileSync(log, "utf8").slice(-2000)}`);
      await new Promise((r) => setTimeout(r, 100));
    }
  }
  return {
    address,
    connections,
    pid: child.pid,
    end: async (signal) => {
      child.kill(signal ?? "SIGTERM");
      await gone;
    },
  };
}

export const drop = (name) => execFileSync(database, ["drop", name]);

/** So many files of journeys go on side by side, each on a server and a database of its own. */
export const SIDE_BY_SIDE = 2;

const served = join(folder, "current.json");

// The addresses and processes go to a file that tests and teardown read.
export default async function globalSetup() {
  const first = 21730 + Math.floor(Math.random() * 2000);
  const servers = [];
  for (let i = 0; i < SIDE_BY_SIDE; i++) {
    const name = `falzkunst_browser_${i}`;
    const { address, pid, connections } = await serve(name, first + i);
    servers.push({ name, address, pid, connections });
  }
  writeFileSync(served, JSON.stringify(servers));
}

export const all = () => JSON.parse(readFileSync(served, "utf8"));

/** The server of the journeys that this process goes through. */
export const current = () => all()[Number(process.env.TEST_PARALLEL_INDEX)];
