// The server is killed outright at random moments. What was acknowledged is there after the next start; a run goes on from its last event.
import { test, expect, request } from "@playwright/test";
import { drop, serve, startOn } from "./server.mjs";

const NAME = "falzkunst_kills";
const KILLS = Number(process.env.FALZKUNST_KILLS ?? 3); // of each kind
const port = 25000 + Math.floor(Math.random() * 2000);
let server;

test.beforeAll(async () => {
  server = await serve(NAME, port);
});
test.afterAll(async () => {
  await server.end("SIGKILL");
  drop(NAME);
});

const sleep = (ms) => new Promise((r) => setTimeout(r, ms));

/** Speaks to the server as a page does. */
async function desk() {
  const http = await request.newContext({ baseURL: server.address });
  const token = (await (await http.get("/")).text()).match(/falzkunst-token" content="([^"]+)/)[1];
  const html = async (path) => (await http.get(path)).text();
  return {
    html,
    post: async (path, form, head) => {
      const answer = await http.post(path, {
        form,
        headers: { "X-Falzkunst-Token": token, ...(head ? { "X-Project-Head": String(head) } : {}) },
        maxRedirects: 0,
      });
      const shown = answer.headers()["hx-trigger"];
      return {
        status: answer.status(),
        location: answer.headers().location,
        head: shown ? JSON.parse(shown)["project-shown"].head : null,
        text: await answer.text(),
      };
    },
  };
}

async function killAndStartAgain() {
  await server.end("SIGKILL");
  server = await startOn(server.connections, port);
}

test(`edits: ${KILLS} kills lose nothing that was acknowledged`, async () => {
  test.setTimeout(400_000);
  let d = await desk();
  const project = (await d.post("/", { name: "Killed while editing" })).location.split("/")[2];
  const page = `/projects/${project}/set-out`;
  let acknowledged = 1,
    asked = 1,
    edits = 0;
  for (let kill = 0; kill < KILLS; kill++) {
    let running = true;
    const editing = (async () => {
      const html = await d.html(page).catch(() => null);
      if (!html) return; // killed before the first edit
      let head = Number(html.match(/data-head="(\d+)"/)[1]);
      while (running) {
        asked = 1 + (asked % 400);
        const answer = await d.post(`${page}?handler=Cards`, { cards: String(asked) }, head).catch(() => null);
        if (!answer) return;
        expect(answer.status).toBe(200);
        [acknowledged, head] = [asked, answer.head];
        edits++;
      }
    })();
    const before = edits;
    await expect.poll(() => edits, { timeout: 20_000 }).toBeGreaterThan(before);
    await sleep(Math.random() * 500);
    await killAndStartAgain();
    running = false;
    await editing;
    d = await desk();
    const kept = Number((await d.html(page)).match(/id="cards"[^>]*value="(\d+)"/)[1]);
    // The edit that was on its way may have arrived or not; everything acknowledged has.
    expect([acknowledged, asked]).toContain(kept);
    asked = acknowledged = kept;
  }
  expect(edits).toBeGreaterThanOrEqual(KILLS);
});

test(`run: ${KILLS} kills, and it goes on from its last event to its end`, async () => {
  test.setTimeout(400_000);
  let d = await desk();
  const project = (await d.html("/")).match(/projects\/([0-9a-f-]+)\/pieces/)[1];
  const page = `/projects/${project}/run`;
  const sheet = (await d.html(page)).match(/data-select="([^"]*chalk-200[^"]*)"/)[1];
  const status = async () => {
    const html = await d.html(`${page}?handler=Status&at=${sheet}`);
    const told = [...html.matchAll(/<li><span class="clock">[^<]*<\/span> ([^<]*)<\/li>/g)].map((m) => m[1]);
    return {
      run: html.match(/"run": "([0-9a-f-]+)"/)?.[1],
      seen: html.match(/"seen": "(\d+)"/)?.[1],
      step: Number(html.match(/data-step="(\d+)"/)?.[1] ?? -1),
      line: Number(html.match(/data-line="(\d+)"/)?.[1] ?? -1),
      over: html.includes('data-over="true"'),
      done: html.includes("Everything on this sheet has run."),
      waits: html.includes("Done, go on"),
      told,
    };
  };
  const head = (await d.html(page)).match(/data-head="(\d+)"/)[1];
  expect((await d.post(`${page}?handler=Begin`, { sheet }, head)).status).toBe(200);
  const { run } = await status();
  await d.post(`${page}?handler=Speed`, { run, speed: "8" }, head);

  let kills = 0,
    now;
  const until = Date.now() + 350_000;
  for (;;) {
    const before = await status();
    if (before.waits) await d.post(`${page}?handler=Confirm`, { run, seen: before.seen ?? "" }, head);
    if (kills < KILLS) {
      await sleep(Math.random() * 600);
      const seen = await status();
      await killAndStartAgain();
      kills++;
      d = await desk();
      now = await status();
      // Never behind what was seen, and not far ahead of it: time without a server does not count.
      expect(
        now.step > seen.step || (now.step === seen.step && now.line >= seen.line),
        `seen ${seen.step}.${seen.line}, then ${now.step}.${now.line}`,
      ).toBe(true);
    } else {
      if (kills === KILLS) await d.post(`${page}?handler=Speed`, { run, speed: "400" }, head);
      kills++;
      await sleep(100);
      now = await status();
    }
    if (now.over) break;
    expect(Date.now(), "the run came to no end").toBeLessThan(until);
  }
  expect(kills).toBeGreaterThanOrEqual(KILLS);
  expect(now.done).toBe(true);
});

test("settling that a kill cuts off is shown as interrupted, with its best kept", async () => {
  const d = await desk();
  const id = (await d.html("/")).match(/projects\/([0-9a-f-]+)\/pieces/)[1];
  const page = `/projects/${id}/sheets`;
  const head = Number((await d.html(page)).match(/data-head="(\d+)"/)[1]);
  expect((await d.post(`${page}?handler=Settle`, { stock: "slate-220", seconds: "600" }, head)).status).toBe(200);
  const shown = async () => (await desk()).html(`${page}?at=slate-220`);
  await expect.poll(shown).toContain("Take it now");
  await expect.poll(shown).toContain("<strong>Settled</strong>");
  await killAndStartAgain();
  await expect.poll(shown, { timeout: 40_000 }).toContain("Interrupted when the server stopped; the best is kept.");
  expect(await shown()).toContain("<strong>Settled</strong>");
});
