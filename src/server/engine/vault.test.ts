import { describe, expect, test } from "@jest/globals";
import { randomBytes } from "node:crypto";
import { commitmentOf } from "../../core/chance/scheme";
import { openVault } from "../../core/chance/vault";
import { passingVault, sealedVault } from "./vault";

const key = randomBytes(32);
describe("the engine’s vault", () => {
  test("what it promised is what it opens, and nothing of it stands in what is kept", () => {
    const vault = sealedVault(key, "kiln");
    const { commitment, sealed } = vault.promise("wheel.1.a");
    const secret = vault.open("wheel.1.a", sealed)!;
    expect(secret).toHaveLength(32);
    expect(commitmentOf(secret)).toBe(commitment);
    expect(sealed).not.toContain(Buffer.from(secret).toString("hex"));
    expect(sealed).not.toContain(Buffer.from(secret).toString("base64url"));
  });
  test("another process with the installation’s key opens it: a restart loses nothing", () => {
    const { sealed, commitment } = sealedVault(key, "kiln").promise("wheel.1.a");
    expect(commitmentOf(sealedVault(key, "kiln").open("wheel.1.a", sealed)!)).toBe(commitment);
  });
  test("it opens for no other round, channel or key, and not when it was touched", () => {
    const vault = sealedVault(key, "kiln");
    const { sealed } = vault.promise("wheel.1.a");
    expect(vault.open("wheel.2.a", sealed)).toBeNull();
    expect(sealedVault(key, "loom").open("wheel.1.a", sealed)).toBeNull();
    expect(sealedVault(randomBytes(32), "kiln").open("wheel.1.a", sealed)).toBeNull();
    expect(vault.open("wheel.1.a", `${sealed.slice(0, -3)}AAA`)).toBeNull();
    for (const nonsense of ["", "v1.", "__proto__", "v1.AAAA"]) expect(vault.open("wheel.1.a", nonsense)).toBeNull();
  });
  test("no secret comes twice, for the same round neither", () => {
    const vault = sealedVault(key, "kiln");
    const all = Array.from({ length: 200 }, () => vault.promise("wheel.1.a").commitment);
    expect(new Set(all).size).toBe(200);
  });
  test("without a key, what was sealed is lost with the process, and never opens as something else", () => {
    const first = passingVault();
    const { sealed } = first.promise("wheel.1.a");
    expect(first.open("wheel.1.a", sealed)).not.toBeNull();
    expect(passingVault().open("wheel.1.a", sealed)).toBeNull();
  });
});
describe("the vault of previews and tests", () => {
  test("comes out the same every time, and keeps rounds apart", () => {
    const [one, other] = [openVault("a"), openVault("a")];
    expect(one.promise("r1")).toEqual(other.promise("r1"));
    expect(one.promise("r1").commitment).not.toBe(one.promise("r2").commitment);
    expect(openVault("b").open("r1", one.promise("r1").sealed)).toBeNull();
    expect(one.open("r2", one.promise("r1").sealed)).toBeNull();
    expect(commitmentOf(one.open("r1", one.promise("r1").sealed)!)).toBe(one.promise("r1").commitment);
  });
});
