/** The only words that web and server exchange: schemas, the types inferred from them, and the endpoints. */
export * from "./answers.ts";
export * from "./care.ts";
export * from "./checks.ts";
export * from "./children.ts";
export * from "./classes.ts";
export * from "./common.ts";
export * from "./endpoint.ts";
export * from "./faces.ts";
export * from "./groups.ts";
export * from "./may.ts";
export { broughtUp } from "./old-marks.ts";
export * from "./readings.ts";
export * from "./texts.ts";
export * from "./views.ts";
export * from "./words.ts";
export * from "./years.ts";
