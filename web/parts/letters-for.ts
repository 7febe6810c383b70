import type { ChildLetters, FaceBody } from "#contract";

/** What a face shows, in letters as they stand for this child; what is tapped or laid stays as it is for all. */
export function lettersFor(face: FaceBody, child: Partial<ChildLetters> | undefined): FaceBody {
  const { letterSize = "usual", letterSpacing = "usual" } = child ?? {};
  const isUsual = letterSize === "usual" && letterSpacing === "usual";
  if (isUsual || (face.show !== "text" && face.show !== "within" && face.show !== "passage")) return face;
  return { ...face, look: { letterSize, letterSpacing } };
}
