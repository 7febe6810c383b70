/** The family of the one-colour pictures. */
export const FAMILY = "Noto Emoji";

/**
 * Brings in what these pictures are drawn with: the font of the signs, of which only the parts that they are in are fetched, and the
 * school's own ones, read to their end.
 */
export async function loadPictures(pictures: readonly string[]): Promise<void> {
  const [own, signs] = [true, false].map((isOwn) => pictures.filter((one) => one.startsWith("data:") === isOwn));
  await Promise.all(
    (own ?? []).map(async (src) => {
      const image = new Image();
      image.src = src;
      // One that cannot be shown is left out by the page as well.
      await image.decode().catch(() => undefined);
    }),
  );
  if (!signs || signs.length === 0) return;
  await import("@fontsource/noto-emoji/400.css");
  await document.fonts.load(`40px "${FAMILY}"`, signs.join(""));
}

/** A picture is sent no larger than this on either side. */
const SIDE = 640;

/** A picture file as it is sent, made smaller on the device, in base64. Throws what a person is told when it cannot be read. */
export async function smallPicture(file: File): Promise<string> {
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new Error("This file is no picture that can be read. Choose a PNG, JPEG or WebP.");
  });
  const scale = Math.min(1, SIDE / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement("canvas");
  canvas.width = Math.max(1, Math.round(bitmap.width * scale));
  canvas.height = Math.max(1, Math.round(bitmap.height * scale));
  const paper = canvas.getContext("2d");
  if (!paper) throw new Error("This device cannot make the picture smaller. Try another one.");
  // What can be seen through is white on paper.
  paper.fillStyle = "#fff";
  paper.fillRect(0, 0, canvas.width, canvas.height);
  paper.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return canvas.toDataURL("image/jpeg", 0.9).replace(/^[^,]*,/, "");
}
