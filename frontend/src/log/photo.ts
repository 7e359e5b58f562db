/** What the server unpacks of a picture that is no JPEG [bytes], and takes of any file [bytes]. */
const MOST_UNPACKED = 24_000_000;
const MOST_BYTES = 8 * 1024 * 1024;
/** The longer side as it is kept. */
const MOST_SIDE = 1600;

/** How large a picture is sent: as it is, or made smaller here where it would be turned away. */
export function sentAs(
  type: string,
  bytes: number,
  width: number,
  height: number,
): { width: number; height: number } | null {
  const fits = type === "image/jpeg" || width * height * 4 <= MOST_UNPACKED;
  if (fits && bytes <= MOST_BYTES) return null;
  const by = Math.min(1, MOST_SIDE / Math.max(width, height));
  return { width: Math.round(width * by), height: Math.round(height * by) };
}

/** A file as it is sent; what can't be drawn here goes as it is, and is told about there. */
export async function forSending(file: File): Promise<File> {
  const picture = await createImageBitmap(file).catch(() => null);
  if (!picture) return file;
  const size = sentAs(file.type, file.size, picture.width, picture.height);
  if (!size) return file;
  const canvas = Object.assign(document.createElement("canvas"), size);
  const draws = canvas.getContext("2d");
  if (!draws) return file;
  draws.fillStyle = "white";
  draws.fillRect(0, 0, size.width, size.height);
  draws.drawImage(picture, 0, 0, size.width, size.height);
  const drawn = await new Promise<Blob | null>((done) => canvas.toBlob(done, "image/jpeg", 0.9));
  return drawn ? new File([drawn], "photo.jpg", { type: "image/jpeg" }) : file;
}
