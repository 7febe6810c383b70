import { readFileSync } from "node:fs";
import { readLexicon, explain, findWords, chain, decodability } from "../core/words/index.ts";
const lexicon=readLexicon(readFileSync("data/lexicon/lexicon.txt","utf8"));
for(const p of "chunk shunk,queen kween,stop top,frog fog,cat cats,was saw,bad dad,from form,tap trap,ask aks,train tran,ship chip,ship sip,box bok,bath barth,car cah,rabbit rabit,kitten kitin,thin fin,cake cak,hope hop,night nit,said sade,was wos,one won,read red,bread breed,quick kick,tip pit,lost lots,spot stop,jumped jump,jumped jumpt,boxes box,dog bog,queen peen,cut cu,cut ,moon mun,slept slep,strap stap,strap tap,strap trap,split spilt,wasp wosp,cube coob,phone fone,brought brout".split(",")){const [t,s]=p.split(" ");const e=explain(t!,s??"",{lexicon});
 console.log(t,s,e.right?"RIGHT":"",e.units.filter(u=>u.outcome!=="right").map(u=>`${u.unit.gpc}:${u.outcome}:${u.heard}`).join(" "),e.putIn.map(p=>`+${p.sound}@${p.before}`).join(" "),e.swapped?"swap "+e.swapped:"",e.firstOfClusterDropped?"FIRST":"",e.where,e.realWord?"real":"",e.reversed.join(),e.backwards?"BACK":"");}
const known=new Set("s=s a=a t=t p=p i=i n=n m=m d=d g=g o=o c=k k=k ck=k e=e u=u r=r h=h b=b f=f l=l ff=f ll=l ss=s sh=sh ch=ch".split(" "));
const t0=performance.now();
console.log(findWords({lexicon,known,target:"sh=sh",place:"balanced",count:12,seed:3}).map(w=>w.text).join(" "));
const t1=performance.now(); for(let i=0;i<50;i++) findWords({lexicon,known,count:20,seed:i}); console.log("find ms",(performance.now()-t1)/50,t1-t0);
console.log(findWords({lexicon,known,shape:"CCVC",count:12,band:4}).map(w=>w.text).join(" "));
console.log(findWords({lexicon,known,target:"sh=sh",contrast:["ch=ch"],count:12,band:4}).map(w=>w.text).join(" "));
const c0=performance.now(); const c=chain({lexicon,known,contrast:["a=a","e=e","i=i"],steps:10,band:4,seed:1}); console.log(c.ok?c.links.map(l=>l.word.text).join(" > "):c.reason, performance.now()-c0);
const c2=chain({lexicon,known:new Set(["s=s","a=a","t=t"]),steps:10}); console.log(c2.ok?c2.links.map(l=>l.word.text).join(" > "):c2.reason);
const d=decodability("“Stop!” said Tam. The 3 shocked ducks didn't swim; they ran up the ship's rope.",known,new Set(["sh=sh"]),{lexicon,wholes:new Set(["said","the","they"])});
console.log(d.words.map(w=>w.text+":"+w.verdict+"("+w.unexpected.map(i=>w.reading.units[i]!.gpc).join()+")").join(" "),d.shareOfRunning,d.inTheWay.slice(0,3),d.practised);
import { explainSpelling } from "../core/words/index.ts";
for(const p of "train trane,train tan,train trayn,chip chp,chip hcip,jump jup,girl gril,bed ded,boat bot,boat boet,night nite,cake caik,cake cak,fish fich,was wos,they thay,queen kween,kitten kittin,jumped jumpt,wanted wantid,little littel,said sed,stop sop,phone fone,people peepul,because becos,frog forg,light lite,kind kind,baby babi,box bocs,cat ,dog boggy,thought thort,church chirch".split(",")){const [t,s]=p.split(" ");const e=explainSpelling(t!,s??"",{lexicon});
 console.log(t,s,e.heardWell?"HEARD":"",e.units.filter(u=>u.outcome!=="right").map(u=>`${u.unit.gpc}:${u.outcome}:${u.written}${u.reversed??""}`).join(" "),e.putIn.map(p=>`+${p.letters}@${p.before}`).join(" "),e.order?"order "+e.order:"");}
import { fourChoices, minimalPairs, sortBySpelling } from "../core/words/index.ts";
console.log(fourChoices({lexicon,known,target:"sh=sh",count:4,seed:2,band:4}).map(i=>i.spoken.text+": "+i.choices.map(c=>c.word.text+(c.confusion?`(${c.confusion.from}>${c.confusion.to})`:"")).join(" ")).join("\n"));
console.log(minimalPairs({lexicon,known,sounds:["i","e"],count:8}).map(p=>p.one.text+"/"+p.other.text).join(" "));
console.log(sortBySpelling("k",{lexicon,known,count:5,band:3}).map(h=>h.gpc+": "+h.words.map(w=>w.text).join(" ")).join("\n"));
