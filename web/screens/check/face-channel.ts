/** What the desk tells the child's window. It never holds a mark. */
export type FaceMessage =
  | { readonly kind: "card"; readonly grapheme: string }
  | { readonly kind: "rest" }
  | { readonly kind: "hello" };

export function faceChannel(): BroadcastChannel {
  return new BroadcastChannel("keen-face");
}
