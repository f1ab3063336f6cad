// Impatient hands on two servers, in short; scripts/impatient does it for two minutes with the database restarted twice.
import { expect, test } from "@playwright/test";
import { impatient } from "./impatient.mjs";

test("eight clients, two servers, one of them killed: nothing is lost and nothing done twice", async () => {
  test.setTimeout(120_000);
  expect(
    await impatient({
      seconds: 15,
      killEvery: 5,
      restarts: 0,
      clients: 8,
      seed: Number(process.env.FALZKUNST_SEED ?? 14),
      say: (line) => console.log(`    ${line}`),
    }),
  ).toEqual([]);
});
