import { impatient } from "./impatient.mjs";
const wrong = await impatient({
  seconds: Number(process.argv[2]),
  killEvery: 10,
  restarts: 2,
  clients: 8,
  seed: Number(process.argv[3]),
  say: (line) => console.log(line),
});
for (const line of wrong) console.log(`✗ ${line}`);
console.log(`${wrong.length} wrong`);
process.exitCode = wrong.length > 0 ? 1 : 0;
