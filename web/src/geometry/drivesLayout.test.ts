import { describe, expect, it } from "vitest";
import { layoutOf } from "./drivesLayout";

const edge = (from: string, to: string) => ({ from, to });

describe("who drives whom", () => {
  it("puts what is driven to the right of all that drives it", () => {
    const { nodes } = layoutOf(
      [edge("wheel", "gear"), edge("gear", "cam"), edge("wheel", "cam"), edge("cam", "stamp")],
      ["stamp", "cam", "gear", "wheel"],
    );
    const column = (id: string) => nodes.find((one) => one.ids.includes(id))!.column;
    expect(["wheel", "gear", "cam", "stamp"].map(column)).toEqual([0, 1, 2, 3]);
  });
  it("gives things that are alike one place, but for the one that is looked at", () => {
    const leaves = Array.from({ length: 60 }, (_, i) => `leaf${i}`);
    const edges = leaves.map((leaf) => edge("wind", leaf));
    const all = layoutOf(edges, ["wind", ...leaves]);
    expect(all.nodes.length).toBe(2);
    expect(all.nodes[1]!.ids.length).toBe(60);
    const one = layoutOf(edges, ["wind", ...leaves], (id) => id === "leaf7");
    expect(one.nodes.map((node) => node.ids.length).sort((a, b) => a - b)).toEqual([1, 1, 59]);
  });
  it("never puts two nodes in one place, and ends where two drive each other", () => {
    const { nodes } = layoutOf([edge("a", "b"), edge("b", "a"), edge("a", "c"), edge("d", "c")], ["a", "b", "c", "d"]);
    const places = nodes.map((node) => `${node.column} ${node.row}`);
    expect(new Set(places).size).toBe(places.length);
    expect(nodes.length).toBe(4);
  });
  it("leaves out what neither drives nor is driven", () => {
    expect(layoutOf([], ["a", "b"]).nodes).toEqual([]);
  });
});
