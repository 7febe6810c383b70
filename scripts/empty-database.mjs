// An empty embedded database, made while the program is built: it takes seconds and is the same each time, so that a new
// school, a backup that is put back and a test begin from a copy of it (server/store/copies.ts).
import { mkdirSync, writeFileSync } from "node:fs";
import { dirname } from "node:path";
import { PGlite } from "@electric-sql/pglite";
import { emptyDatabaseFile } from "./prepare.mjs";

const client = await PGlite.create();
const dump = await client.dumpDataDir("gzip");
await client.close();
mkdirSync(dirname(emptyDatabaseFile), { recursive: true });
writeFileSync(emptyDatabaseFile, Buffer.from(await dump.arrayBuffer()));
