import { readBody } from "@/contract";
import { scratchDatabase } from "@/testing/scratchDatabase";
import { countPeople, database } from "@/data";
import { callerHeader, callerOf, mayPass, thisMachine, type Asker } from "@/server/actor";
import { isPassphrase, judgePassphrase, sealPassphrase } from "./passphrase";
import * as people from "./people";
import { Problem } from "@/server/problem";

const from = { address: "192.0.2.7", secure: true, agent: "a browser" };
const good = "sixty plum wagons northward";
const refusal = async (doing: Promise<unknown>): Promise<Problem> =>
  doing.then(
    () => {
      throw new Error("it was not refused");
    },
    (error: unknown) => error as Problem,
  );
const asker = (may: Asker["may"]): Asker => ({ kind: "program", name: "a program", may, id: "1" });

describe("who may what", () => {
  it.each([
    [null, "anybody", true],
    [null, "reads", false],
    [null, "metrics", false],
    [asker("metrics"), "metrics", true],
    [asker("metrics"), "reads", false],
    [asker("reads"), "reads", true],
    [asker("reads"), "metrics", true],
    [asker("reads"), "tunes", false],
    [asker("reads"), "runs", false],
    [asker("runs"), "reads", true],
    [asker("runs"), "runs", true],
    [asker("runs"), "tunes", false],
    [asker("tunes"), "tunes", true],
    [asker("tunes"), "runs", true],
    [asker("tunes"), "owner", false],
    [{ ...asker("reads"), kind: "person" }, "owner", false],
    [{ ...asker("tunes"), kind: "person" }, "owner", true],
    [thisMachine, "tunes", true],
    [thisMachine, "owner", true],
  ] as const)("%# %j at an endpoint for %s: %s", (who, endpoint, may) =>
    expect(mayPass(who, endpoint)).toBe(may),
  );
  it("without a server in front that says otherwise, only this machine is there to caller, and nobody where signing in is asked", () => {
    expect(callerOf(new Headers()).asker).toEqual(thisMachine);
    process.env.LAMP_SIGN_IN = "1";
    try {
      expect(callerOf(new Headers()).asker).toBeNull();
      const told = { asker: asker("reads"), address: "::1", secure: true };
      expect(callerOf(new Headers({ [callerHeader]: encodeURIComponent(JSON.stringify(told)) }))).toEqual(told);
    } finally {
      delete process.env.LAMP_SIGN_IN;
    }
  });
});

describe("passphrases", () => {
  it("are kept so that the same one is never kept alike, and only the same one opens", async () => {
    const [one, other] = [await sealPassphrase(good), await sealPassphrase(good)];
    expect(one).not.toBe(other);
    expect(one).not.toContain(good);
    expect(await isPassphrase(good, one)).toBe(true);
    expect(await isPassphrase(`${good} `, one)).toBe(false);
    expect(await isPassphrase(good, null)).toBe(false);
  });
  it("composed and decomposed letters are the same (Unicode NFKC)", async () =>
    expect(
      await isPassphrase("caf\u0065\u0301 am alten hafen", await sealPassphrase("caf\u00e9 am alten hafen")),
    ).toBe(true));
  it.each(["short", "password123", "velvetlamp2026", "Ida Ida Ida Ida", "1234567890123", "qwertyuiop"])(
    "%s is too easily guessed, with what would help",
    async (weak) => {
      const { status, fix } = await refusal(judgePassphrase(weak, ["Ida"]));
      expect([status, fix.length > 10]).toEqual([422, true]);
    },
  );
  it("four words that nobody puts together do", async () => judgePassphrase(good, ["Ida"]));
});

describe("coming in", () => {
  let end: () => Promise<void>;
  beforeAll(async () => {
    end = await scratchDatabase();
    process.env.LAMP_SIGN_IN = "1";
    process.env.LAMP_SECRET = "a secret for tests only, of more than thirty-two characters";
    await people.setPassphrase("Ida", "tunes", good);
    await people.setPassphrase("Bram", "reads", "forty quiet herons inland");
  });
  afterAll(async () => {
    delete process.env.LAMP_SIGN_IN;
    delete process.env.LAMP_SECRET;
    await end();
  });
  const session = async (name = "ida", passphrase = good, address = from.address) => {
    const { cookie } = await people.signIn({ name, passphrase }, { ...from, address });
    return cookie.split(";")[0] ?? "";
  };
  const calls = async (cookie: string, authorization?: string) =>
    people.whoCalls({ cookie, authorization, secure: true });

  it("opens a session whose cookie no script and no other site gets", async () => {
    const { name, cookie } = await people.signIn({ name: "ida", passphrase: good }, from);
    expect(name).toBe("Ida");
    expect(cookie).toMatch(/^__Host-lamp=.*Path=\/; HttpOnly; SameSite=Strict; Max-Age=\d+; Secure$/);
    expect(await calls(cookie.split(";")[0] ?? "")).toMatchObject({
      kind: "person",
      name: "Ida",
      may: "tunes",
    });
  });
  it("a wrong passphrase and a name that isn't there are told alike", async () => {
    const [one, other] = [
      await refusal(people.signIn({ name: "Ida", passphrase: "wrong" }, from)),
      await refusal(people.signIn({ name: "Nobody", passphrase: "wrong" }, from)),
    ];
    expect(one.toJSON()).toEqual(other.toJSON());
    expect(one.status).toBe(401);
  });
  it("a cookie of somebody's making, a cut one and one over plain HTTP open nothing", async () => {
    const cookie = await session();
    expect(await calls(cookie.slice(0, -5))).toBeNull();
    expect(await calls("__Host-lamp=Fe26.2*1*made*up")).toBeNull();
    expect(await people.whoCalls({ cookie, secure: false })).toBeNull();
    expect(await calls("")).toBeNull();
  });
  it("a session is listed and ended, by its owner or by others, and a new passphrase ends them all", async () => {
    const [one, other] = [
      await session("bram", "forty quiet herons inland"),
      await session("bram", "forty quiet herons inland"),
    ];
    const listed = (await people.viewPeople()).sessions.filter(({ name }) => name === "Bram");
    expect(listed).toHaveLength(2);
    const { id } = (await calls(one))!;
    await people.endSession(thisMachine, id);
    expect(await calls(one)).toBeNull();
    expect(await calls(other)).not.toBeNull();
    const caller = { asker: await calls(other), address: from.address, secure: true };
    expect(
      (
        await refusal(
          people.changePassphrase(caller, { passphrase: "wrong", fresh: "eleven brass kettles west" }),
        )
      ).status,
    ).toBe(422);
    await people.changePassphrase(caller, {
      passphrase: "forty quiet herons inland",
      fresh: "eleven brass kettles west",
    });
    expect(await calls(other)).toBeNull();
    expect(
      (await refusal(people.signIn({ name: "Bram", passphrase: "forty quiet herons inland" }, from))).status,
    ).toBe(401);
    expect(await calls(await session("bram", "eleven brass kettles west"))).toMatchObject({ may: "reads" });
  });
  it("what is kept of sessions, tokens and links opens nothing", async () => {
    await session();
    const { token } = await people.addProgram({ name: "Ida" }, { name: "logger", may: "tunes" });
    const { path } = await people.addLink({ name: "Ida" }, readBody("addLink", { what: "board", ofId: "" }));
    const [rows] = (await database().query(
      `select string_agg(digest, ' ') as kept from (select digest from sessions union all select digest from programs union all select digest from shared_links) d`,
    )) as [{ kept: string }[], unknown];
    for (const secret of [token, path.split("/").at(-1) ?? ""])
      expect(rows[0]?.kept).not.toContain(secret.slice(-16));
    expect(rows[0]?.kept).toMatch(/^[0-9a-f ]+$/);
  });
  it("a program calls with its token, within what it may, until that is revoked", async () => {
    const { id, token } = await people.addProgram({ name: "Ida" }, { name: "meter", may: "metrics" });
    expect(await calls("", `Bearer ${token}`)).toMatchObject({
      kind: "program",
      name: "meter",
      may: "metrics",
    });
    expect((await people.viewPeople()).programs.find((row) => row.id === id)?.usedAt).not.toBeNull();
    expect(await calls("", `Bearer ${token}x`)).toBeNull();
    await people.revokeProgram(thisMachine, id);
    expect(await calls("", `Bearer ${token}`)).toBeNull();
    expect((await refusal(people.revokeProgram(thisMachine, id))).status).toBe(404);
  });
  it("a link shows its page until it is revoked, and a wrong one says so", async () => {
    const { id, path } = await people.addLink(
      { name: "Ida" },
      readBody("addLink", { what: "board", ofId: "", notes: false }),
    );
    const secret = path.split("/").at(-1) ?? "";
    expect(await people.sharedPage(secret)).toMatch(/^<!doctype html>/i);
    await people.revokeLink(thisMachine, id);
    expect((await refusal(people.sharedPage(secret))).status).toBe(404);
    expect((await refusal(people.sharedPage("../../etc/passwd"))).status).toBe(404);
    expect(() => readBody("addLink", { what: "recipe", ofId: "" })).toThrow(/which one/);
  });
  it("guessing is held back after ten tries from one address, many at once too; another address still gets in", async () => {
    const tries = await Promise.all(
      Array.from({ length: 14 }, async () =>
        refusal(people.signIn({ name: "Ida", passphrase: "guess" }, { ...from, address: "198.51.100.9" })),
      ),
    );
    const count = (status: number) => tries.filter((each) => each.status === status).length;
    expect([count(401), count(429)]).toEqual([10, 4]);
    const right = await refusal(
      people.signIn({ name: "Ida", passphrase: good }, { ...from, address: "198.51.100.9" }),
    );
    expect(right.status).toBe(429);
    await session("ida", good, "198.51.100.10");
  });
  it("somebody who is let in no more is out at once", async () => {
    await people.setPassphrase("Cleo", "tunes", "nine wool ladders uphill");
    const cookie = await session("Cleo", "nine wool ladders uphill");
    const cleo = (await people.viewPeople()).people.find(({ name }) => name === "Cleo");
    await people.removePerson(thisMachine, cleo?.id ?? "");
    expect(await calls(cookie)).toBeNull();
    expect(await countPeople()).toBe(2);
  });
});
