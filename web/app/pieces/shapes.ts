export { problem } from "#contract";
