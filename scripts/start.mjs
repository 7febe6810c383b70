// npm start: a school of one's own, without demo data. The first page leads through setting it up.
import { runSchool } from "./run.mjs";

await runSchool({ folder: ".keen-school", demo: false });
