import { readFileSync, writeFileSync } from "node:fs";
import { hashOf } from "./unfit.ts";

/** `tsx scripts/lexicon/leave-out.ts word …` adds words to those that stay out of the lexicon, as hashes. */
const file = "data/lexicon/unfit.txt";
const lines = readFileSync(file, "utf8").split("\n").filter(Boolean);
const remarks = lines.filter((line) => line.startsWith("#"));
const hashes = new Set(lines.filter((line) => !line.startsWith("#")));
for (const word of process.argv.slice(2)) hashes.add(hashOf(word.toLowerCase()));
writeFileSync(file, `${[...remarks, ...[...hashes].sort()].join("\n")}\n`);
console.log(`${hashes.size} words stay out. Run npm run data:words to build the lexicon without them.`);
