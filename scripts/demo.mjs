// npm run demo: from a fresh clone to a school that can be used, in one command.
import { runSchool } from "./run.mjs";

await runSchool({ folder: ".keen", demo: true });
