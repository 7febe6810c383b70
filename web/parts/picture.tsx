import { FAMILY } from "./pictures.ts";

/** How a sign is set: in the font of one-colour pictures, never in the coloured one of the device. */
const signStyle = { fontFamily: `"${FAMILY}"`, fontVariantEmoji: "text" } as const;

/** The picture of a word, as high as the letters around it: a sign of the picture font, or a picture of the school's own. */
export function Picture({ of, picture, className = "" }: { of: string; picture: string; className?: string }) {
  return picture.startsWith("data:") ? (
    <img src={picture} alt={of} className={`inline-block h-[1em] w-[1.2em] object-contain ${className}`} />
  ) : (
    <span role="img" aria-label={of} style={signStyle} className={className}>
      {picture}
    </span>
  );
}
