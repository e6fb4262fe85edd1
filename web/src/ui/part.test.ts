import { expect, test } from "vitest";
import { Part } from "./part";

const later = <T>(value: T) => {
  let come = () => {};
  const load = () => new Promise<{ default: T }>((done) => (come = () => done({ default: value })));
  return { load, come: () => come() };
};

test("what another fetch brought between the drawing and the listening is there", async () => {
  const { load, come } = later("panel");
  const part = new Part(load);
  const early = part.fetch();
  expect(part.now().made).toBeNull();
  come();
  await early;
  let heard = 0;
  part.wait(() => heard++);
  expect(part.now().made).toBe("panel");
  expect(heard).toBe(0);
});

test("who waits hears of it, whoever asked for it", async () => {
  const { load, come } = later("panel");
  const part = new Part(load);
  const heard = new Promise<void>((done) => void part.wait(done));
  come();
  await heard;
  expect(part.now().made).toBe("panel");
});

test("what fails is said, and asked for anew by who comes back", async () => {
  let tries = 0;
  const part = new Part(() => (tries++ ? Promise.resolve({ default: "panel" }) : Promise.reject(new Error("gone"))));
  await new Promise<void>((done) => {
    const leave = part.wait(() => {
      expect(part.now().failed).toEqual(new Error("gone"));
      leave();
      done();
    });
  });
  await new Promise<void>((done) => void part.wait(done));
  expect(part.now()).toEqual({ made: "panel", failed: null });
});
