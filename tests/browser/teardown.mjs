import { current, drop } from "./server.mjs";

export default async function globalTeardown() {
  try {
    process.kill(current().pid, "SIGTERM");
  } catch (e) {
    if (e.code !== "ESRCH") throw e;
  }
  drop("falzkunst_browser");
}
