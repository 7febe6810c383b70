// Fills the demo school into the server at the address that is given.
import { fillDemo } from "#demo";

const sent = await fillDemo(process.argv[2] ?? "http://127.0.0.1:4310");
if (sent > 0) console.log(`Filled in Marlpit Lock School with ${sent} requests.`);
