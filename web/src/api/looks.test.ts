import { beforeEach, describe, expect, it, vi } from "vitest";
import { endLooks, lookedAt } from "@/api/looks";

/** A WebSocket that does what the test says. */
class Socket extends EventTarget {
  static readonly OPEN = 1;
  static made: Socket[] = [];
  readyState = 0;
  sent: string[] = [];
  constructor(readonly url: string) {
    super();
    Socket.made.push(this);
  }
  send = (text: string): void => void this.sent.push(text);
  open(): void {
    this.readyState = 1;
    this.dispatchEvent(new Event("open"));
  }
  answer(data: ArrayBuffer | string): void {
    this.dispatchEvent(Object.assign(new Event("message"), { data }));
  }
  close(): void {
    this.readyState = 3;
    this.dispatchEvent(new Event("close"));
  }
}

const asked = vi.fn(async () => Uint8Array.of(9));
const look = (revision = 0, scene = "s1") => lookedAt(scene, { revision, edits: [] }, asked);
let now = 0;
beforeEach(() => {
  endLooks();
  asked.mockClear();
  [Socket.made, now] = [[], 0];
  vi.stubGlobal("WebSocket", Socket);
  vi.stubGlobal("location", { origin: "http://127.0.0.1:8137" });
  vi.spyOn(performance, "now").mockImplementation(() => now);
});

describe("looks", () => {
  it("go by requests until their connection is open, and over it from then on, in order", async () => {
    expect([...(await look())]).toEqual([9]);
    const [socket] = Socket.made;
    expect(socket!.url).toBe("ws://127.0.0.1:8137/api/scenes/s1/looks");
    socket!.open();
    const [first, second] = [look(1), look(2)];
    expect(socket!.sent.map((text) => JSON.parse(text).revision)).toEqual([1, 2]);
    socket!.answer(Uint8Array.of(1).buffer);
    socket!.answer(Uint8Array.of(2).buffer);
    expect([[...(await first)], [...(await second)]]).toEqual([[1], [2]]);
    expect([asked.mock.calls.length, Socket.made.length]).toEqual([1, 1]);
  });

  it("that are refused say why", async () => {
    await look();
    Socket.made[0]!.open();
    const refused = look();
    Socket.made[0]!.answer(JSON.stringify({ status: 422, title: "No", detail: "A ring of two links." }));
    await expect(refused).rejects.toMatchObject({ status: 422, message: "A ring of two links." });
  });

  it("go by requests where the connection is lost, and by another one after that", async () => {
    await look();
    Socket.made[0]!.open();
    const lost = look();
    Socket.made[0]!.close();
    expect([...(await lost)]).toEqual([9]);
    await look();
    expect(Socket.made).toHaveLength(2);
  });

  it("do not try for a connection repeatedly where none can be had", async () => {
    await look();
    Socket.made[0]!.close();
    await look();
    await look();
    expect([Socket.made.length, asked.mock.calls.length]).toEqual([1, 3]);
    now = 11_000;
    await look();
    expect(Socket.made).toHaveLength(2);
  });

  it("of another scene have another connection", async () => {
    await look();
    Socket.made[0]!.open();
    await look(0, "s2");
    expect(Socket.made.map((one) => [one.url.split("/").at(-2), one.readyState])).toEqual([
      ["s1", 3],
      ["s2", 0],
    ]);
  });
});
