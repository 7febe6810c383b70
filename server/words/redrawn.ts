import sharp from "sharp";

/** A picture is no larger than this on either side when it is kept: sharp on a card of four centimetres. */
const SIDE = 320;
const TONES = 16;
/** Larger ones are not taken apart: a small file can unfold to very many points. */
const MOST_POINTS = 24_000_000;
const TAKEN: readonly (string | undefined)[] = ["png", "jpeg", "webp"];

/**
 * A picture drawn anew: small, in grey tones on white, as a PNG; what else was in the file (place, camera, text) is left behind.
 * @returns it as a `data:` address; undefined for what is no PNG, JPEG or WebP, or cannot be read to its end
 */
export async function redrawn(file: Buffer): Promise<string | undefined> {
  try {
    const picture = sharp(file, { limitInputPixels: MOST_POINTS, failOn: "error", pages: 1 });
    if (!TAKEN.includes((await picture.metadata()).format)) return undefined;
    const drawn = await picture
      .rotate()
      .flatten({ background: "#fff" })
      .resize(SIDE, SIDE, { fit: "inside", withoutEnlargement: true })
      .greyscale()
      .png({ palette: true, colours: TONES, dither: 0 })
      .toBuffer();
    return `data:image/png;base64,${drawn.toString("base64")}`;
  } catch {
    // The reader of pictures throws on what it cannot read; whoever sent it is told so.
    return undefined;
  }
}
