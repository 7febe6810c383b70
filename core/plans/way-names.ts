/** How a spelling is taught again that was taught twice and is not there: one way after the other. */
export const ways = ["another practice", "a contrast", "a smaller step"] as const;
export type Way = (typeof ways)[number];
