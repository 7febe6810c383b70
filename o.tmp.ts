import { openStore } from "/work/dev/server/store/open.ts";
import { PGlite } from "@electric-sql/pglite";
let t=performance.now();
const s = await openStore({folder:"memory://"}); console.log("open", performance.now()-t); t=performance.now();
await s.close(); console.log("close", performance.now()-t);
t=performance.now(); const p=new PGlite(); await p.waitReady; console.log("bare", performance.now()-t);
t=performance.now(); const dump=await p.dumpDataDir("none"); console.log("dump", performance.now()-t, dump.size);
t=performance.now(); const q=new PGlite({loadDataDir: dump}); await q.waitReady; await q.query("select 1"); console.log("load", performance.now()-t);
