import { hashOf } from "./lexicon/unfit.ts";
import { readFileSync, writeFileSync } from "node:fs";
const words = readFileSync("/tmp/unfit-words.txt","utf8").split(/\s+/).filter(Boolean);
writeFileSync("data/lexicon/unfit.txt","# Words that stay out, as hashes: see docs/word-engine.md for the rule.\n"+[...new Set(words.map(hashOf))].sort().join("\n")+"\n");
