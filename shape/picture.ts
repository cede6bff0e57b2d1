import sharp from "sharp";
import { PhotoFault, type Picture } from "../core/photo";

/** Most points a picture may have: 100 megapixels. */
const MOST_POINTS = 100_000_000;

/**
 * Reads a picture (JPEG, PNG, WebP, AVIF, TIFF) the right way up, as its orientation mark says.
 * @throws PhotoFault with what is wrong and what to do
 */
export async function readPicture(bytes: Uint8Array): Promise<Picture> {
  try {
    const { data, info } = await sharp(bytes, { limitInputPixels: MOST_POINTS, failOn: "error" })
      .rotate()
      .toColourspace("srgb")
      .ensureAlpha()
      .raw()
      .toBuffer({ resolveWithObject: true });
    return { width: info.width, height: info.height, rgba: data };
  } catch (e) {
    throw new PhotoFault(
      `The picture cannot be read (${e instanceof Error ? e.message : String(e)}): it is damaged, or no picture. JPEG, PNG, WebP, AVIF and TIFF can be.`,
    );
  }
}
