/** @jest-environment node */
import { readdirSync } from "node:fs";
import sharp from "sharp";
import { bytesOf, preview } from "./fixtures/backup";
import { phonePhoto, PNG } from "./fixtures/picture";
import { Shops } from "./fixtures/shop";
import { restoreBackup } from "./backup/restore";
import { addJobPicture, jobPicture } from "./jobPictures";
import { Refusal } from "./refusal";

const shops = new Shops();
afterEach(() => shops.close());
const ID = "demo-crater-lamp-base";

describe("the photographs of a piece", () => {
  it("are kept without what the camera wrote, the right way up, one a side", async () => {
    const w = shops.open(true);
    await addJobPicture(w, ID, "front", await phonePhoto());
    const { bytes, mime } = await jobPicture(w, ID, "front");
    expect(mime).toBe("image/jpeg");
    const about = await sharp(bytes).metadata();
    expect([about.width, about.height, about.exif]).toEqual([20, 40, undefined]);
    // A second takes the first's place, and its file is not left behind.
    await addJobPicture(w, ID, "front", PNG);
    expect((await jobPicture(w, ID, "front")).mime).toBe("image/png");
    expect(readdirSync(w.files.photos)).toHaveLength(1);
    await addJobPicture(w, ID, "side", PNG);
    expect(readdirSync(w.files.photos)).toHaveLength(2);
  });

  it("go with the backup", async () => {
    const a = shops.open(true);
    await addJobPicture(a, ID, "top", PNG);
    const b = shops.open(false);
    const { token } = await preview(b, await bytesOf(a));
    await restoreBackup(b, { token, way: "replace" });
    expect((await jobPicture(b, ID, "top")).bytes.equals((await jobPicture(a, ID, "top")).bytes)).toBe(true);
  });

  it("are refused for a job or a side that is not there, and where they are no pictures", async () => {
    const w = shops.open(true);
    await expect(addJobPicture(w, "no-such-job", "front", PNG)).rejects.toBeInstanceOf(Refusal);
    await expect(addJobPicture(w, ID, "below", PNG)).rejects.toThrow(/no view "below"/);
    await expect(addJobPicture(w, ID, "front", Buffer.from("not a picture"))).rejects.toBeInstanceOf(Refusal);
    await expect(jobPicture(w, ID, "side")).rejects.toThrow(/no photograph/);
    expect(readdirSync(w.files.photos)).toEqual([]);
  });
});
