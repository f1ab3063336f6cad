// Times of frames from a browser trace.
export const share = (sorted, q) => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * q))];

/** Input every 10 ms whether the page has answered the last or not, as a hand gives it. */
export async function steadily(count, act) {
  const sent = [],
    began = performance.now();
  for (let i = 0; i < count; i++) {
    sent.push(act(i));
    const due = began + (i + 1) * 10 - performance.now();
    if (due > 0) await new Promise((r) => setTimeout(r, due));
  }
  await Promise.all(sent);
}

/** What frames were drawn while something was done: their number, and times between them in ms. */
export async function frames(page, act) {
  const session = await page.context().newCDPSession(page);
  const events = [];
  session.on("Tracing.dataCollected", ({ value }) => events.push(...value));
  await session.send("Tracing.start", {
    transferMode: "ReportEvents",
    traceConfig: { includedCategories: ["disabled-by-default-devtools.timeline.frame", "devtools.timeline.frame", "devtools.timeline"] },
  });
  await act();
  const complete = new Promise((resolve) => session.once("Tracing.tracingComplete", resolve));
  await session.send("Tracing.end");
  await complete;
  const drawn = events
    .filter((e) => e.name === "DrawFrame")
    .map((e) => e.ts / 1000)
    .sort((a, b) => a - b);
  const times = drawn
    .slice(1)
    .map((t, i) => t - drawn[i])
    .sort((a, b) => a - b);
  return { frames: drawn.length, median: share(times, 0.5), p95: share(times, 0.95), longest: times[times.length - 1] };
}

export const report = (name, f) =>
  console.log(
    `  ${name}: ${f.frames} frames, median ${f.median.toFixed(1)} ms, 95th percentile ${f.p95.toFixed(1)} ms, longest ${f.longest.toFixed(1)} ms`,
  );
