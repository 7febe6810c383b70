import { readFileSync, writeFileSync } from "node:fs";
import { hashOf } from "./lexicon/unfit.ts";

const words = readFileSync("/tmp/unfit-words.txt", "utf8").split(/\s+/).filter(Boolean);
writeFileSync(
  "data/lexicon/unfit.txt",
  "# Words that stay out, as hashes: see docs/word-engine.md for the rule.\n" +
    [...new Set(words.map(hashOf))].sort().join("\n") +
    "\n",
);
