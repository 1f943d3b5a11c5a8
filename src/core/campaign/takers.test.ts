import { deviceOf, deviceTaker } from ".";

describe("who takes a run", () => {
  it("a device says which rig it is, whatever its name holds", () => {
    for (const rig of ["Pipit", "the one: on the left", "Ōi"])
      expect(deviceOf(deviceTaker(rig, "a1b2"))).toBe(rig);
  });
  it("two programs on one rig take different runs", () =>
    expect(deviceTaker("Pipit", "a")).not.toBe(deviceTaker("Pipit", "b")));
  it("a person's browser is no device, nor is a text that only begins like one", () => {
    for (const taker of ["6d1f0b52-7c6a-4a43-9f0e-1f6a5f3f2f11", "device:", "device:half"])
      expect(deviceOf(taker)).toBeNull();
  });
  it("a long name stays within what is kept of a taker", () =>
    expect(deviceTaker("x".repeat(200), "a1b2c3d4").length).toBeLessThanOrEqual(80));
});
