// What the server takes for every station, tab and action of a large project. Run by scripts/measure-large.
import { createRequire } from "node:module";
import { client, noticeOf } from "./client.mjs";
import { drop, serve } from "./server.mjs";

const { PNG } = createRequire(import.meta.url)("pngjs");
const PIECES = 300,
  LINES = 5000,
  PICTURES = 60,
  LETTERS = 2000,
  PICKED = 600,
  SLOW = 500;
const NAME = "falzkunst_large";
const only = process.argv[2] ?? "";

const server = await serve(NAME, 27000 + Math.floor(Math.random() * 900));
const rows = [];
try {
  const desk = client(server.address);
  await desk.get("/");
  const id = await desk.begin("Three hundred");
  let head = 1;

  async function timed(name, ask) {
    if (!name.includes(only)) return null;
    const begun = performance.now();
    const answer = await ask();
    rows.push({
      name,
      ms: performance.now() - begun,
      bytes: answer.text.length,
      said: answer.status >= 400 ? `${answer.status} ${noticeOf(answer.text)}` : "",
    });
    return answer;
  }
  async function edit(name, ask) {
    const begun = performance.now();
    const answer = await ask();
    const said = answer.status >= 400 ? `${answer.status} ${noticeOf(answer.text)}` : "";
    if (name) rows.push({ name, ms: performance.now() - begun, bytes: answer.text.length, said });
    else if (said) throw new Error(said);
    head = answer.head ?? head;
    return answer;
  }
  const page = (name, path) =>
    timed(name, async () => {
      const answer = await desk.ask(`/projects/${id}/${path}`);
      return { status: answer.status, text: await answer.text() };
    });
  const show = (station, picked, open = {}) => desk.post(`/projects/${id}/${station}?handler=Show`, { picked, ...open }, head);
  const act = (station, name, fields, picked) =>
    desk.post(`/projects/${id}/${station}?handler=Do&act=${name}`, { ...fields, picked }, head);

  // 300 pieces with short pen lines on them, and one with 600 circles for the pen.
  const pens = Math.floor((LINES - PIECES - PICKED) / PIECES);
  const piece = (i) => {
    const [x, y] = [(i % 20) * 34, Math.floor(i / 20) * 34];
    const dashes = Array.from(
      { length: pens },
      (_, k) => `<path id="draw-${i}-${k}" d="M${x + 3} ${y + 3 + k * 1.8}h20" stroke="#7B4BA8" fill="none"/>`,
    ).join("");
    return `<g><path d="M${x} ${y}h30v30h-30z" fill="#C9A66B"/>${dashes}</g>`;
  };
  const circles = Array.from(
    { length: PICKED },
    (_, i) => `<circle id="draw-c${i}" cx="${720 + (i % 30) * 8}" cy="${10 + Math.floor(i / 30) * 8}" r="3" fill="none" stroke="#2040E0"/>`,
  ).join("");
  const art = `<svg xmlns="http://www.w3.org/2000/svg" width="1000mm" height="600mm" viewBox="0 0 1000 600">${Array.from({ length: PIECES - 1 }, (_, i) => piece(i)).join("")}<g><rect x="710" y="2" width="250" height="180" fill="#334455"/>${circles}</g></svg>`;
  let answer = await edit("bring in 300 pieces, 5,000 lines", () => desk.bring(id, head, "large.svg", art));
  const asked = /handler=AtSize[^>]*hx-vals='([^']*)'|name="file" value="([^"]*)"/.exec(answer.text);
  const file =
    /handler=(?:Motifs|Take)&(?:amp;)?file=([0-9a-f-]{36})/.exec(answer.text)?.[1] ?? /"file": ?"([0-9a-f-]{36})"/.exec(answer.text)?.[1];
  if (asked && !file) console.log("the size of the file was asked", asked[0]);
  if (file) {
    if (/handler=AtSize/.test(answer.text))
      answer = await edit("settle its size", () => desk.post(`/projects/${id}/art?handler=AtSize`, { file, scale: "1" }, head));
    await edit("take all motifs", () => desk.post(`/projects/${id}/art?handler=Take`, { file, all: "true" }, head));
  }
  const pieces = (await desk.get(`/projects/${id}/pieces`)).match(/data-piece="p\d+"/g)?.length ?? 0;
  const form = new FormData();
  for (let i = 0; i < PICTURES; i++) {
    const png = new PNG({ width: 300, height: 200 });
    for (let k = 0; k < png.data.length; k += 4) png.data.set([(k / 4 + i * 40) % 255, (k >> 9) % 255, i * 4, 255], k);
    form.append("files", new Blob([PNG.sync.write(png)]), `picture-${i}.png`);
  }
  await edit(`bring in ${PICTURES} pictures`, () => desk.post(`/projects/${id}/art?handler=BringIn`, null, head, form));
  const words = "The last tram leaves the depot at nine and the lanterns are lit along the valley. ";
  await edit(`write ${LETTERS} letters`, () =>
    act("pieces", "write", { words: words.repeat(30).slice(0, LETTERS), height: "2 mm", operation: "Draw" }, `p${PIECES}`),
  );
  console.log(`${pieces} rows of pieces at Pieces, revision ${head}`);

  const all = Array.from({ length: PIECES }, (_, i) => `p${i + 1}`).join(",");
  const lines = `p${PIECES}:l2~l${PICKED + 1}`;
  const text = `p${PIECES}:l${PICKED + 2}`;
  const stations = ["set-out", "art", "pieces", "build", "detail", "sheets", "print", "run"];
  for (const station of stations) await page(`open ${station}`, station);
  for (const station of stations) await page(`open ${station} again`, station);
  for (const station of stations) await page(`scene of ${station}`, `${station}?handler=Scene`);
  await page("history", "pieces?handler=History");
  const picks = { "a piece": "p1", "all pieces": all, "600 lines": lines, "the text": text };
  for (const station of ["pieces", "build", "detail"])
    for (const [name, picked] of Object.entries(picks)) {
      if (station !== "pieces" && picked.includes(":")) continue;
      const shown = await timed(`${station}, ${name} picked`, () => show(station, picked));
      const kind = shown && /data-tabs="([^"]*)"/.exec(shown.text)?.[1];
      for (const tab of new Set(kind ? [...shown.text.matchAll(/data-tab="([^"]*)"/g)].map((m) => m[1]) : [])) {
        await timed(`${station}, ${name} picked, tab ${tab}`, () => desk.withCookie("tabs", `${kind}=${tab}`, () => show(station, picked)));
      }
    }
  const actions = [
    ["pieces", "move", { dx: "1", dy: "0" }, all],
    ["pieces", "turn", { degrees: "90" }, all],
    ["pieces", "mirror", {}, all],
    ["pieces", "stock", { stock: "slate-220" }, all],
    ["pieces", "quantity", { quantity: "2" }, all],
    ["pieces", "quantity", { quantity: "1" }, all],
    ["pieces", "align", { edge: "Left" }, "p1,p2,p3,p4"],
    ["pieces", "move", { dx: "1", dy: "0" }, lines],
    ["pieces", "operation", { operation: "Foil" }, lines],
    ["pieces", "operation", { operation: "Draw" }, lines],
    ["pieces", "tip", { width: "0.4" }, lines],
    ["pieces", "fill", { pattern: "Parallel" }, lines],
    ["pieces", "fill", { pattern: "Inward" }, lines],
    ["pieces", "fill", {}, lines],
    ["pieces", "words", { words: words.repeat(20).slice(0, 1500) }, text],
    ["pieces", "letters", { height: "2.5 mm" }, text],
    ["pieces", "fill", { pattern: "Parallel" }, text],
    ["pieces", "fill", {}, text],
    ["pieces", "draw-rectangle", { x: "10", y: "10", width: "20", height: "10" }, "p1"],
    ["pieces", "edge-line", { inset: "2" }, all],
    ["pieces", "repeat", { rows: "2", columns: "2" }, "p1,p2"],
    ["pieces", "hide", {}, all],
    ["pieces", "hide", { on: "false" }, all],
    ["detail", "border", { by: "3" }, "p1"],
    ["build", "shadow", { count: "2" }, `p${PIECES}`],
    ["build", "combine", { how: "Unite" }, "p1,p2"],
    ["print", "print-ground", { fill: "#EBE2CB" }, all],
    ["pieces", "delete", {}, "p5,p6"],
  ];
  for (const [station, name, fields, picked] of actions) {
    const what = picked === all ? "all pieces" : picked === lines ? "600 lines" : picked === text ? "the text" : picked;
    if (`${name} ${what}`.includes(only))
      await edit(`${name} ${Object.values(fields).join(" ").slice(0, 24)} on ${what}`, () => act(station, name, fields, picked));
  }
  await edit("undo", () => desk.post(`/projects/${id}/pieces?handler=Undo`, {}, head));
  await edit("redo", () => desk.post(`/projects/${id}/pieces?handler=Redo`, {}, head));
  await edit("put on sheets", () => desk.post(`/projects/${id}/sheets?handler=Place`, { spacing: "3" }, head));
  for (const station of ["sheets", "print", "run"]) {
    await page(`open ${station} with sheets`, station);
    await page(`open ${station} with sheets again`, station);
    await page(`scene of ${station} with sheets`, `${station}?handler=Scene`);
  }
} finally {
  await server.end("SIGTERM");
  drop(NAME);
}
console.log("| what | ms | bytes | |\n| --- | ---: | ---: | --- |");
for (const r of rows)
  console.log(`| ${r.name} | ${r.ms.toFixed(0)} | ${r.bytes} | ${[r.ms > SLOW ? "slow" : "", r.said].filter(Boolean).join(", ")} |`);
console.log(`${rows.filter((r) => r.ms > SLOW).length} of ${rows.length} above ${SLOW} ms`);
