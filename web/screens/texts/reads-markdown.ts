// The parser of Markdown comes when something is pasted or chosen: no page needs it to open.
export { readPastedText } from "#core/reading";
