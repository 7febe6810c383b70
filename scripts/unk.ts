import { readFileSync } from "node:fs";
import { findCorrespondence, usualGpc } from "#core/phonics";
const t=readFileSync("data/lexicon/corrections.txt","utf8");const s=new Map<string,string>();
for(const l of t.split("\n")){ if(!l||l[0]=="#")continue; const [h]=l.split(/\s+#\s*/); for(const n of h!.split(/:\s*/)[1]!.split(/\s*;\s*/)) for(let p of n.trim().split(/\s+/)){p=p.replace(/^[+']+/,"");const g=p.includes("=")?p:usualGpc(p); if(!g||!findCorrespondence(g)) s.set(p,l);}}
console.log([...s.entries()].map(e=>e.join("   ")).join("\n"));
