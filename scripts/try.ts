import { readFileSync } from "node:fs";
import { readLexicon, split, readUnits, spellOut } from "../core/words/index.ts";
const t0=performance.now();
const lexicon=readLexicon(readFileSync("data/lexicon/lexicon.txt","utf8"));
console.log("load ms",performance.now()-t0, lexicon.words.length);
let n=0,ok=0,sn=0,sok=0; const bad:string[]=[];
for(const line of readFileSync("core/words/gold/words.txt","utf8").split("\n")){ if(!line||line[0]==="#")continue;
 for(const nt of line.split(",")){ const pieces=nt.trim().split(/\s+/); const graphemes=pieces.map(p=>p.split("=")[0]!); 
  const word=spellOut(graphemes.map(g=>({gpc:g,grapheme:g,sound:""}))); const r=split(word,{lexicon}); n++;
  const have=r[0]!.units; const same=have.map(u=>u.grapheme).join(" ")===graphemes.join(" "); if(same) ok++; 
  let sbad=""; if(same) pieces.forEach((p,i)=>{ if(p.includes("=")){sn++; if(have[i]!.gpc===p) sok++; else sbad+=" "+p+"!="+have[i]!.gpc; }});
  if(!same||sbad) bad.push(`${word}(${r[0]!.source}): want ${nt.trim()} have ${have.map(u=>u.gpc).join(" ")} ${sbad}`);
 }}
console.log(ok,n,(ok/n*100).toFixed(2),"sounds",sok,sn,(sok/sn*100).toFixed(2)); console.log(bad.join("\n"));
const t1=performance.now(); split("blorfing",{lexicon}); console.log("first rule",performance.now()-t1);
for(const w of ["blorf","shunk","kween","trane","strampling","Kaz","isn't","Sam's","well-known","café","3rd","naïve","snozzle","fleep","quibe","thrust","ghoti","",  "🙂","xxxx","birdseed","unhelpfully"]) console.log(w,split(w,{lexicon}).slice(0,2).map(r=>r.units.map(u=>u.gpc+"@"+u.at.join("-")).join(" ")+" ["+r.syllables.join("·")+"] "+r.shape+" "+r.source+" "+r.confidence.toFixed(2)+" "+JSON.stringify(r.morphemes)).join("\n    "));
