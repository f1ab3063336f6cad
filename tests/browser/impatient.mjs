// Eight clients edit, settle, begin and confirm against two web processes on one database; one of them is killed outright every so
// often, and the database is restarted. Nothing that was acknowledged is lost, nothing is done twice, and no answer is without a
// sentence. Long by scripts/impatient, short by impatient.spec.mjs.
import { execFileSync } from "node:child_process";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { client, noticeOf } from "./client.mjs";
import { seeded } from "./seeded.mjs";
import { drop, serve, startOn } from "./server.mjs";

const database = join(dirname(fileURLToPath(import.meta.url)), "..", "..", "scripts", "database");
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
  const acknowledged = new Map(); // project -> the highest head that was answered, and the edits that made each head
  const until = Date.now() + seconds * 1000;
  const isOver = () => Date.now() > until;
  try {
    const shared = await client(servers[0].address).demo();
    const own = await Promise.all(Array.from({ length: clients }, (_, i) => client(servers[0].address).begin(`Hands of ${i}`)));

    async function hands(i) {
      const random = seeded(seed + i);
      let desk = client(servers[i % 2].address);
      while (!isOver()) {
        const project = random() < 0.6 ? shared : own[i];
        try {
          const head = await desk.head(project);
          const pick = random();
          let answer, what;
          if (pick < 0.5) {
            what = "edit";
            // Few cards of the shared project, so that its pieces can be put on sheets.
            const cards = String(1 + Math.floor(random() * (project === shared ? 2 : 400)));
            answer = await desk.post(`/projects/${project}/set-out?handler=Cards`, { cards }, head);
            // What is as it was already makes no revision.
            if (answer.status === 200 && answer.head !== head) {
              const made = acknowledged.get(project) ?? new Map();
              acknowledged.set(project, made);
              if (made.has(answer.head)) wrong.push(`revision ${answer.head} of ${project} was acknowledged twice`);
              made.set(answer.head, cards);
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
    for (const [project, made] of acknowledged) {
      const stored = new Map(
        query(`select number || ' ' || coalesce((edit->'setOut'->>'cards'), '') from revisions where project_id = '${project}'`)
          .split("\n")
          .map((l) => l.split(" "))
          .map(([n, c]) => [Number(n), c]),
      );
      for (const [head, cards] of made) {
        if (!stored.has(head)) wrong.push(`revision ${head} of ${project} was acknowledged and is gone`);
        else if (stored.get(head) !== "" && stored.get(head) !== cards)
          wrong.push(`revision ${head} of ${project} says ${stored.get(head)} cards and not ${cards}`);
      }
      await desk.head(project);
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
