import { describe, expect, test } from "@jest/globals";
import { help, readOptions } from "./options.mjs";

const words = (...args) => {
  try {
    readOptions(args, "/house");
    return "taken";
  } catch (error) {
    return error.message;
  }
};

describe("what stands behind ./start", () => {
  test("nothing: the demo on the usual port, in the usual folder", () => {
    expect(readOptions([], "/house")).toEqual({
      folder: "/house/.data",
      demo: true,
      lan: false,
      port: 4470,
      isNamed: false,
      hasPractice: true,
      publicUrl: "",
      trusted: "",
    });
  });
  test("all of it", () => {
    const all = ["--empty", "--lan", "--no-practice", "--port", "6001", "--data", "/srv/izzam"];
    expect(readOptions([...all, "--public-url", "https://izzam.example", "--trust", "127.0.0.1, 10.0.0.0/24,fd00::/8"], "/house")).toEqual({
      folder: "/srv/izzam",
      demo: false,
      lan: true,
      port: 6001,
      isNamed: true,
      hasPractice: false,
      publicUrl: "https://izzam.example",
      trusted: "127.0.0.1,10.0.0.0/24,fd00::/8",
    });
    expect([readOptions(["--help"], "/"), readOptions(["-h"], "/")]).toEqual([null, null]);
  });
  test.each([
    ["--trust", "foo", "“foo” is neither an IP address nor a network"],
    ["--trust", "10.0.0.0/33", "10.0.0.0/33"],
    ["--trust", "10.0.0.0/8/8", "nor a network"],
    ["--trust", "10.0.0.1,", "“” is neither an IP address"],
    ["--trust", "", "“” is neither an IP address"],
    ["--port", "99999", "99999 is not a port"],
    ["--port", "0", "0 is not a port"],
    ["--port", "4e3", "4e3 is not a port"],
    ["--port", "", " is not a port"],
    ["--port", "5060", "Browsers go to no page on port 5060"],
    ["--public-url", "izzam.example", "write it with its scheme"],
    ["--data", "", "--data needs the name of a folder"],
    ["--prot", "1", "--port N"],
    ["word", "", "--port N"],
  ])("%s %s is refused in words", (option, value, said) => {
    expect(words(option, value)).toContain(said);
  });
  test("the help says what becomes of a port that is taken", () => {
    expect(help).toContain("the port to use, and no other; without it 4470, or the next one that is free");
  });
});
