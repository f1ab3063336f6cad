// Eight clients edit, bring pictures in, undo, redo, settle, begin and confirm against two web processes on one database, two windows on
// each project of their own; one process is killed outright every so often, and the database is restarted. Nothing that was
// acknowledged is lost, nothing is done twice, nothing that was undone returns, and no answer is without a sentence. Long by scripts/impatient, short by impatient.spec.mjs.
import { execFileSync } from "node:child_process";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { client, noticeOf } from "./client.mjs";
import { seeded } from "./seeded.mjs";
import { drop, serve, startOn } from "./server.mjs";

const database = join(dirname(fileURLToPath(import.meta.url)), "..", "..", "scripts", "database");
const { PNG } = createRequire(import.meta.url)("pngjs");
const sleep = (ms) => new Promise((r) => setTimeout(r, ms));

/**
 * @param {{seconds: number, killEvery: number, restarts: number, clients: number, seed: number, say: (line: string) => void}} how
 * @returns what went wrong, a line each; empty where all is well.
 */
export async function impatient({ seconds, killEvery, restarts, clients, seed, say }) {
  const name = "falzkunst_impatient",
    port = 26000 + Math.floor(Math.random() * 900);
  const first = await serve(name, port);
  const servers = [first, await startOn(first.connections, port + 1)];
  const wrong = [],
    counts = {};
  const acknowledged = new Map(); // project -> what was answered to have made each head: a number of cards, or the name of a picture
  const moved = []; // heads that were answered to have moved, by undoing and redoing
  const until = Date.now() + seconds * 1000;
  const isOver = () => Date.now() > until;
  try {
    const shared = await client(servers[0].address).demo();
    // Two windows on each, of two servers.
    const own = await Promise.all(Array.from({ length: clients / 2 }, (_, i) => client(servers[0].address).begin(`Hands of ${i}`)));

    function isMade(project, head, what) {
      const made = acknowledged.get(project) ?? new Map();
      acknowledged.set(project, made);
      if (made.has(head)) wrong.push(`revision ${head} of ${project} was acknowledged twice`);
      made.set(head, what);
    }

    function picture(random, name) {
      const png = new PNG({ width: 40, height: 30 });
      for (let k = 0; k < png.data.length; k += 4) png.data.set([random() * 255, random() * 255, 90, 255], k);
      const form = new FormData();
      form.append("files", new Blob([PNG.sync.write(png)]), `${name}.png`);
      return form;
    }

    async function hands(i) {
      const random = seeded(seed + i);
      let desk = client(servers[i % 2].address);
      while (!isOver()) {
        const project = random() < 0.5 ? shared : own[i >> 1];
        try {
          const head = await desk.head(project);
          const pick = random();
          let answer, what;
          if (project !== shared && pick < 0.35) {
            what = pick < 0.2 ? "undo" : "redo";
            answer = await desk.post(`/projects/${project}/set-out?handler=${what === "undo" ? "Undo" : "Redo"}`, {}, head);
            if (answer.status === 200 && answer.head !== head) moved.push({ project, what, from: head, to: answer.head });
          } else if (project !== shared && pick < 0.5) {
            what = "picture";
            const name = `leaf ${i} ${Math.floor(random() * 1e9).toString(36)}`;
            answer = await desk.post(`/projects/${project}/art?handler=BringIn`, null, head, picture(random, name));
            if (answer.status === 200 && answer.head !== head) isMade(project, answer.head, name);
          } else if (project !== shared || pick < 0.5) {
            what = "edit";
            // Few cards of the shared project, so that its pieces can be put on sheets.
            const cards = String(1 + Math.floor(random() * (project === shared ? 2 : 400)));
            answer = await desk.post(`/projects/${project}/set-out?handler=Cards`, { cards }, head);
            // What is as it was already makes no revision.
            if (answer.status === 200 && answer.head !== head) {
              isMade(project, answer.head, cards);
            }
          } else if (pick < 0.62) {
            what = "place";
            answer = await desk.post(`/projects/${shared}/sheets?handler=Place`, { spacing: "2" }, await desk.head(shared));
          } else if (pick < 0.75) {
            what = "settle";
            answer = await desk.post(
              `/projects/${shared}/sheets?handler=Settle`,
              { stock: ["kraft-240", "slate-220", "chalk-200"][Math.floor(random() * 3)], seconds: "10" },
              await desk.head(shared),
            );
          } else if (pick < 0.85) {
            what = "begin";
            const page = await desk.get(`/projects/${shared}/run`);
            const sheet = /data-select="([^"]+)"/.exec(page)?.[1],
              seen = /data-head="(\d+)"/.exec(page)?.[1];
            if (!sheet) continue;
            answer = await desk.post(`/projects/${shared}/run?handler=Begin`, { sheet }, seen);
          } else {
            what = "confirm";
            const page = await desk.get(`/projects/${shared}/run?handler=Status`);
            const run = /"run": "([0-9a-f-]+)"/.exec(page)?.[1],
              seen = /"seen": "(\d+)"/.exec(page)?.[1];
            if (!run || !seen) continue;
            // Twice, as impatient fingers do.
            const both = await Promise.all(
              [0, 1].map(() => desk.post(`/projects/${shared}/run?handler=${random() < 0.2 ? "Stop" : "Confirm"}`, { run, seen }, head)),
            );
            answer = both[0];
          }
          counts[`${what} ${answer.status}`] = (counts[`${what} ${answer.status}`] ?? 0) + 1;
          if (answer.status >= 500 && !/Something broke|cannot be reached|Load the page again/.test(answer.text))
            wrong.push(`${what}: ${answer.status} without a sentence: ${answer.text.slice(0, 200)}`);
          if (answer.status === 422 && noticeOf(answer.text) === "" && !answer.text.includes("wrong"))
            wrong.push(`${what}: 422 without a sentence`);
        } catch {
          // The server was killed under the request, or its page did not come whole; whatever was on its way may have arrived or not.
          await sleep(150);
          desk = client(servers[i % 2].address);
        }
      }
    }

    async function kills() {
      while (!isOver()) {
        await sleep(killEvery * 1000);
        if (isOver()) return;
        await servers[1].end("SIGKILL");
        servers[1] = await startOn(servers[1].connections, port + 1);
      }
    }

    async function databaseRestarts() {
      for (let n = 1; n <= restarts; n++) {
        await sleep((seconds * 1000) / (restarts + 1));
        say("the database is restarted");
        execFileSync(database, ["stop"], { stdio: "pipe" });
        execFileSync(database, ["start"], { stdio: "pipe" });
      }
    }

    await Promise.all([...Array.from({ length: clients }, (_, i) => hands(i)), kills(), databaseRestarts()]);
    await sleep(1500);
    say(
      Object.entries(counts)
        .sort()
        .map(([what, n]) => `${what}: ${n}`)
        .join(", "),
    );

    // What was acknowledged is in the history, each revision once and as it was answered.
    const desk = client(servers[0].address);
    const query = (sql) => execFileSync(database, ["query", name, sql], { encoding: "utf8" }).trim();
    const parents = new Map(); // project -> revision -> the one that it was made of
    for (const [project, made] of acknowledged) {
      const rows = query(
        `select number || '|' || coalesce(parent, 0) || '|' || design_hash || '|' || set_out_hash || '|' || coalesce(edit->'setOut'->>'cards', '') || '|' || coalesce(edit::text, '') from revisions where project_id = '${project}'`,
      );
      const stored = new Map(
        rows.split("\n").map((line) => {
          const [number, parent, design, setOut, cards, ...edit] = line.split("|");
          return [Number(number), { parent: Number(parent), design, setOut, cards, edit: edit.join("|") }];
        }),
      );
      parents.set(project, stored);
      for (const [head, what] of made) {
        const revision = stored.get(head);
        const before = stored.get(revision?.parent);
        const isCards = /^\d+$/.test(what);
        if (!revision) wrong.push(`revision ${head} of ${project} was acknowledged and is gone`);
        else if (isCards && revision.cards !== "" && revision.cards !== what)
          wrong.push(`revision ${head} of ${project} says ${revision.cards} cards and not ${what}`);
        else if (!isCards && !revision.edit.includes(what)) wrong.push(`revision ${head} of ${project} does not bring in ${what}`);
        // An edit changes what it says of what it was made of, and nothing else: what was undone there stays undone.
        else if (isCards ? revision.design !== before.design : revision.setOut !== before.setOut || revision.design === before.design)
          wrong.push(`revision ${head} of ${project} changed more or less than it says`);
      }
      await desk.head(project);
    }
    for (const { project, what, from, to } of moved) {
      const stored = parents.get(project);
      if (stored && (what === "undo" ? stored.get(from).parent !== to : stored.get(to)?.parent !== from))
        wrong.push(`${what} from ${from} of ${project} went to ${to}`);
    }
    const unfinished = Number(query("select count(*) from runs where phase not in ('Done', 'Stopped', 'Broken')"));
    if (unfinished > 1) wrong.push(`${unfinished} runs are unfinished on one machine`);
    if (Number(query("select count(*) from runs where phase = 'Broken'")) > 0) wrong.push("a run was broken");
    const twice = query("select run_id from run_events where kind = 'Confirmed' group by run_id, step having count(*) > 1");
    if (twice !== "") wrong.push(`a stop was confirmed twice in ${twice}`);
    const active = query(
      "select kind || ' ' || subject from jobs where phase in ('Waiting', 'Working') group by project_id, kind, subject having count(*) > 1",
    );
    if (active !== "") wrong.push(`two jobs at once: ${active}`);
  } finally {
    for (const server of servers) await server.end("SIGKILL");
    drop(name);
  }
  return wrong;
}
