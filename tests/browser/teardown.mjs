import { all, drop } from "./server.mjs";

export default async function globalTeardown() {
  for (const { pid, name } of all()) {
    try {
      process.kill(pid, "SIGTERM");
    } catch (e) {
      if (e.code !== "ESRCH") throw e;
    }
    drop(name);
  }
}
