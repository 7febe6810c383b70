import type { FaceBody } from "#contract";

/** What a tap at a face answers: late taps of the item before it are told by it. Undefined where nothing can be done. */
export function askedBy(face: FaceBody): string | undefined {
  if (face.show === "choices" || face.show === "board") return face.item;
  if (face.show === "within" && face.apart !== undefined) return face.text;
  return face.show === "passage" && face.answers ? face.text.slice(0, 200) : undefined;
}
