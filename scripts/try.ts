import { align } from "./lexicon/align.ts";
import { neutralised } from "./lexicon/neutral.ts";
import { pronunciations } from "./lexicon/pron.ts";
import { findCorrespondence } from "#core/phonics";
import { readFileSync } from "node:fs";
const ws=[...new Set(readFileSync("data/lexicon/children.txt","utf8").split("\n").filter(l=>!l.startsWith("#")).join(" ").split(" ").filter(Boolean))];
const odd=new Map<string,string[]>(); let none:string[]=[]; let n=0;
for(const w of ws){ if(!/^[a-z]+$/.test(w)) continue; const p=pronunciations(w); if(!p.length) continue; n++;
 const best=p.map(x=>align(w,x)).filter(x=>x).sort((a,b)=>a!.cost-b!.cost)[0]; if(!best){none.push(w);continue;}
 const g=neutralised(w,best); for(const x of g) if(!findCorrespondence(x)){ odd.set(x,[...(odd.get(x)??[]),w]);} }
console.log(n,"none:",none.join(" "));
console.log([...odd].sort((a,b)=>b[1].length-a[1].length).map(([g,w])=>`${g}(${w.length}): ${w.slice(0,12).join(" ")}`).join("\n"));
