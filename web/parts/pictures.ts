/** The family of the one-colour pictures. */
const FAMILY = "Noto Emoji";

/** Brings in the font in which these pictures are drawn. Only the parts of it that they are in are fetched. */
export async function loadPictures(signs: readonly string[]): Promise<void> {
  if (signs.length === 0) return;
  await import("@fontsource/noto-emoji/400.css");
  await document.fonts.load(`40px "${FAMILY}"`, signs.join(""));
}

/** How a picture is set: in its font, never in the coloured one of the device. */
export const pictureStyle = { fontFamily: `"${FAMILY}"`, fontVariantEmoji: "text" } as const;
