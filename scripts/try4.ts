import { readFileSync } from "node:fs"; import { readLexicon, decodability } from "../core/words/index.ts";
const lexicon=readLexicon(readFileSync("data/lexicon/lexicon.txt","utf8"));
const ls=readFileSync("data/sentences.txt","utf8").split("\n").filter(l=>l.trim()&&!l.startsWith("#")).map(l=>l.trim());
console.log(ls.length,new Set(ls).size); const odd=new Map<string,number>(); const src:Record<string,number>={};
for(const l of ls){const d=decodability(l,new Set(),new Set(),{lexicon}); if(d.running<3||d.running>15) console.log("LEN",d.running,l); if(!/[.?!]$/.test(l)) console.log("END",l); for(const w of d.words){src[w.source]=(src[w.source]??0)+1; if(w.source==="rules"||w.source==="compound") odd.set(w.text+":"+w.source,(odd.get(w.text)??0)+1);}}
console.log(src,[...odd.keys()].join(" ")); const seen=new Set();for(const l of ls){if(seen.has(l))console.log("DUP",l);seen.add(l)}
