// What ships with Falzkunst, and what builds and tests it, with licences. Run by scripts/third-party.
import { existsSync, readFileSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";

const [root, packages, flag] = process.argv.slice(2);
const json = (file) => JSON.parse(readFileSync(join(root, file), "utf8"));

/** Packages that name no licence themselves: what their project states. */
const LOOKED_AT = {
  "BitMiracle.LibTiff.NET": "BSD-3-Clause",
  "NetArchTest.Rules": "MIT",
  XmpCore: "BSD-3-Clause",
};

function nuget(folders) {
  const found = new Map();
  for (const folder of folders) {
    const lock = join(folder, "packages.lock.json");
    if (!existsSync(join(root, lock))) continue;
    for (const target of Object.values(json(lock).dependencies))
      for (const [name, { type, resolved }] of Object.entries(target))
        if (type !== "Project") found.set(`${name} ${resolved}`, { name, version: resolved });
  }
  return [...found.values()].map((p) => ({ ...p, licence: licenceOf(p) }));
}

function licenceOf({ name, version }) {
  const folder = join(packages, name.toLowerCase(), version);
  const nuspec = readFileSync(join(folder, `${name.toLowerCase()}.nuspec`), "utf8");
  const expression = nuspec.match(/<license type="expression">([^<]+)<\/license>/)?.[1];
  if (expression) return expression;
  if (LOOKED_AT[name]) return LOOKED_AT[name];
  const file = nuspec.match(/<license type="file">([^<]+)<\/license>/)?.[1];
  const text = file ? readFileSync(join(folder, file.replaceAll("\\", "/")), "utf8") : "";
  if (/\bMIT License\b/i.test(text) || /Permission is hereby granted, free of charge/.test(text)) return "MIT";
  if (/Apache License/.test(text)) return "Apache-2.0";
  const url = nuspec.match(/<licenseUrl>([^<]+)<\/licenseUrl>/)?.[1] ?? "";
  if (/apache/i.test(url)) return "Apache-2.0";
  if (/\bmit\b/i.test(url)) return "MIT";
  throw new Error(`${name} ${version} does not say what its licence is: look at it and put it into scripts/third-party.mjs`);
}

const npm = (folder, isWanted) =>
  Object.entries(json(join(folder, "package-lock.json")).packages)
    .filter(([path, p]) => path && !p.optional && isWanted(path.replace(/^.*node_modules\//, "")))
    .map(([path, p]) => ({ name: path.replace(/^.*node_modules\//, ""), version: p.version, licence: p.license }));

const byName = (a, b) => a.name.localeCompare(b.name, "en") || a.version.localeCompare(b.version, "en");
const table = (rows) =>
  ["| package | version | licence |", "|---|---|---|", ...rows.sort(byName).map((r) => `| ${r.name} | ${r.version} | ${r.licence} |`)].join(
    "\n",
  );

const sources = readdirSync(join(root, "src")).map((p) => join("src", p));
const others = [...readdirSync(join(root, "tests")).map((p) => join("tests", p)), join("bench", "Falzkunst.Bench")];
// Tools of design time stand in the lock file of Data and do not ship.
const isTool = ({ name }) =>
  /^(Humanizer|Microsoft\.Build|Microsoft\.CodeAnalysis|Microsoft\.EntityFrameworkCore\.(Design|Analyzers)|Mono\.TextTemplating|Newtonsoft\.Json|System\.(CodeDom|Composition))/.test(
    name,
  );
const ships = nuget(sources).filter((p) => !isTool(p));
const shipped = new Set(ships.map((p) => `${p.name} ${p.version}`));
const builds = [...new Map([...nuget(sources).filter(isTool), ...nuget(others)].map((p) => [`${p.name} ${p.version}`, p])).values()].filter(
  (p) => !shipped.has(`${p.name} ${p.version}`),
);

const text = `# Third parties

Written by \`scripts/third-party\` from the lock files; \`./test\` checks it. The database server is Debian's package \`postgresql\` (PostgreSQL licence), the browser of the tests Debian's \`chromium\` (BSD-3-Clause and others).

## Ships with the application

${table([...ships, ...npm("src/Falzkunst.Web", () => true), ...npm("src/Falzkunst.Formats", (name) => /^@expo-google-fonts\/|^hersheytext$/.test(name))])}

Faces for words: those of \`@expo-google-fonts\` are under the SIL Open Font License 1.1, which each package carries. Of \`hersheytext\` the faces that begin with EMS are Sheldon B. Michaels' (SIL Open Font License 1.1), derived from faces under that licence; the others are after A. V. Hershey's of the U.S. National Bureau of Standards, free to use with this credit. Falzkunst shows all of them under short names of its own.

## Builds and tests it

${table([...builds, ...npm("tests/browser", () => true)])}
`;

const target = join(root, "THIRD-PARTY.md");
if (flag === "--check") {
  if (!existsSync(target) || readFileSync(target, "utf8") !== text) {
    console.error("THIRD-PARTY.md is not what scripts/third-party would write; run it and look at what has changed.");
    process.exit(1);
  }
} else {
  writeFileSync(target, text);
}
