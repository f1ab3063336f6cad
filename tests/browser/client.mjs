// Speaks to a server as a page does, without a browser: cookies, the token, the head that it has seen.
export function client(address) {
  const cookies = new Map();
  let token = "";
  async function ask(path, options = {}) {
    const answer = await fetch(address + path, {
      redirect: "manual",
      ...options,
      headers: { ...options.headers, cookie: [...cookies].map((c) => c.join("=")).join("; ") },
    });
    for (const set of answer.headers.getSetCookie()) cookies.set(...set.split(";")[0].split(/=(.*)/s).slice(0, 2));
    return answer;
  }
  const desk = {
    ask,
    get: async (path) => (await ask(path)).text(),
    /** Asks with a cookie that a page's script keeps, such as which tab lies open. */
    async withCookie(name, value, asking) {
      cookies.set(name, value);
      const answer = await asking();
      cookies.delete(name);
      return answer;
    },
    async post(path, fields, head, body) {
      if (!token) token = /falzkunst-token" content="([^"]+)/.exec(await desk.get("/"))[1];
      const headers = {
        "X-Falzkunst-Token": token,
        "HX-Request": "true",
        ...(head === undefined ? {} : { "X-Project-Head": String(head) }),
      };
      const answer = await ask(path, { method: "POST", body: body ?? new URLSearchParams(fields), headers });
      const shown = answer.headers.get("hx-trigger");
      return {
        status: answer.status,
        location: answer.headers.get("location"),
        text: await answer.text(),
        head: shown ? JSON.parse(shown)["project-shown"]?.head : undefined,
      };
    },
    async begin(name) {
      return (await desk.post("/", { name })).location.split("/")[2];
    },
    bring(project, head, name, bytes) {
      const form = new FormData();
      form.append("files", new Blob([bytes]), name);
      return desk.post(`/projects/${project}/art?handler=BringIn`, null, head, form);
    },
    head: async (project) => Number(/data-head="(\d+)"/.exec(await desk.get(`/projects/${project}/set-out`))[1]),
    demo: async () => /projects\/([0-9a-f-]+)\/pieces/.exec(await desk.get("/"))[1],
    projects: async () => [...(await desk.get("/")).matchAll(/class="card-name"/g)].length,
  };
  return desk;
}

/** What a notice says, as text. */
export const noticeOf = (html) =>
  /class="notice"[^>]*>([\s\S]*?)<\/div>/
    .exec(html)?.[1]
    .replace(/<[^>]+>/g, " ")
    .replace(/\s+/g, " ")
    .trim() ?? "";
