import { expect, test } from "vitest";
import { cellsOf, moved, stepped } from "@/geometry/table";

test("cells of a spreadsheet, of CSV, and of CSV with quotes", () => {
  expect(cellsOf("Mon\t12\nTue\t30\n")).toEqual([
    ["Mon", "12"],
    ["Tue", "30"],
  ]);
  expect(cellsOf("a,b\r\nc,d")).toEqual([
    ["a", "b"],
    ["c", "d"],
  ]);
  expect(cellsOf('"Dear frog, hello";"a ""quoted"" nut"')).toEqual([["Dear frog, hello", 'a "quoted" nut']]);
  expect(cellsOf("3,5\t7")).toEqual([["3,5", "7"]]);
});

test("a column goes on in its own steps", () => {
  expect(stepped(["1", "3"], 4)).toEqual(["1", "3", "5", "7"]);
  expect(stepped(["No. 5"], 3)).toEqual(["No. 5", "No. 6", "No. 7"]);
  expect(stepped([], 3)).toEqual(["1", "2", "3"]);
  expect(stepped(["0.50", "0.25"], 3)).toEqual(["0.50", "0.25", "0.00"]);
});

test("a row is moved with its gaps", () => {
  expect(moved(["a", "b"], 0, 2, 3)).toEqual(["b", "", "a"]);
  expect(moved(["a", "b"], 1, 0, 2)).toEqual(["b", "a"]);
});
