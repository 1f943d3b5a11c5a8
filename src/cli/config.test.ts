import { mkdtempSync, readFileSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { lamp as run } from "./inTests";

const folder = mkdtempSync(join(tmpdir(), "lamp-config-"));
const file = (name: string, content: string | Uint8Array) => {
  writeFileSync(join(folder, name), content);
  return join(folder, name);
};
const lamp = (...args: string[]) => run(["config", ...args]);

describe("lamp config", () => {
  const toml = '\uFEFF# own\r\n[video]\r\nscale = 2 # lines\r\nfilter = "plain"\r\n';
  it("writes the patched bytes: mark, line ends and comments as they were", async () => {
    const { code, bytes } = await lamp("patch", file("a.toml", toml), "--set", "video/scale=3");
    expect(code).toBe(0);
    expect(bytes).toEqual(Buffer.from(toml.replace("2", "3")));
  });
  it("tells line, before and after; takes values from a profile; writes elsewhere", async () => {
    const profile = file("p.json", JSON.stringify({ video: { scale: 4, filter: "sharp" } }));
    const into = join(folder, "out.toml");
    const { out } = await lamp("patch", file("b.toml", toml), "--profile", profile, "--diff", "--out", into);
    expect(out).toBe("3: video/scale: 2 → 4\n4: video/filter: plain → sharp\n");
    expect(readFileSync(into, "utf8")).toBe(toml.replace("2", "4").replace("plain", "sharp"));
  });
  it("reads a file as one object", async () => {
    const { out } = await lamp("read", file("c.ini", "[Video]\nscale = 2\n[Video]\nscale = 3\n"), "--json");
    expect(JSON.parse(out)).toEqual({
      format: "ini",
      encoding: "utf-8",
      entries: [
        { section: "Video", key: "scale", line: 2, value: "2" },
        { section: "Video", key: "scale", line: 4, value: "3" },
      ],
      problems: [{ line: 2, message: "“Video/scale” stands 2 times" }],
      unknown: [],
    });
  });
  it.each([
    [["patch", "nowhere.toml", "--set", "a=1"], /can't be read/],
    [["patch", file("d.ini", "k = 1\nk = 2\n"), "--set", "k=3"], /Line 2: “k” stands 2 times/],
    [["patch", file("e.toml", "[a\n"), "--set", "a/k=3"], /Line/],
    [["patch", file("f.toml", "k = 1\n")], /Say what to change/],
  ])("exit 2 and one line: %#", async (args, why) => {
    const { code, out, err } = await lamp(...args);
    expect(code).toBe(2);
    expect(out).toBe("");
    expect(
      err
        .trim()
        .split("\n")
        .filter((line) => line.startsWith("lamp: ")),
    ).toHaveLength(1);
    expect(err).toMatch(why);
  });
});
