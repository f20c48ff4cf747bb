import { storm } from "./storm";

test("two writers, a line with faults and a server that is killed: what was written is stored, and nothing twice", async () => {
  const { made, stored, acknowledged, conflicts, kills, faults } = await storm({ edits: 24, every: 500, seed: 5 });
  expect([stored, conflicts]).toEqual([made, 0]);
  expect(acknowledged).toBeGreaterThan(24);
  expect(kills).toBeGreaterThan(0);
  for (const count of Object.values(faults)) expect(count).toBeGreaterThan(0);
});
