/**
 * In what way it was asked.
 * - `seen`: the child saw it and said it
 * - `heard`: the child heard it and wrote or said it
 * - `chosen`: the child heard it and chose among some
 * - `text`: it stood in a text that the child read
 */
export const ways = ["seen", "heard", "chosen", "text"] as const;
export type Way = (typeof ways)[number];
