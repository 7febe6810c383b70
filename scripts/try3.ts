import { readFileSync } from "node:fs"; import { isUnfit } from "./lexicon/unfit.ts"; import {cuss} from "cuss";
const ws=[...new Set(readFileSync("data/lexicon/children.txt","utf8").split("\n").filter(l=>!l.startsWith("#")).join(" ").split(" ").filter(Boolean))];
console.log(ws.filter(isUnfit).join(" ")); 
const lex=new Set(readFileSync("data/lexicon/lexicon.txt","utf8").split("\n"));
