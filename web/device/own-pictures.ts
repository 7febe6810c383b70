import { useMemo } from "react";
import { listPictures, type OwnPicture } from "#contract";
import { keyOf } from "#core/words";
import { useKept } from "./kept.ts";

const NONE: readonly OwnPicture[] = [];

/**
 * Pictures of words: those that ship, and in their place those that the school put in.
 * @param shipped by word, a sign of the picture font
 * @returns by word, a sign or a `data:` address, and the school's own with who made them
 */
export function usePictures(shipped: Readonly<Record<string, string>> | undefined): {
  readonly pictures: Readonly<Record<string, string>>;
  readonly own: readonly OwnPicture[];
} {
  const own = useKept(listPictures, {}).data ?? NONE;
  return useMemo(
    () => ({
      own,
      pictures: { ...shipped, ...Object.fromEntries(own.map(({ text, image }) => [keyOf(text), image])) },
    }),
    [shipped, own],
  );
}
