/**
 * Looks over a WebSocket: while a hand moves they come one after the other, and a request for each takes longer than
 * the look itself. As long as it is not connected, and where it is lost, they are asked for by requests.
 */
import { ServiceError } from "./errors";
import type { Edit, Problem } from "./types";

interface Batch {
  readonly revision: number;
  readonly edits: readonly Edit[];
}
interface Asked {
  readonly take: (message: Uint8Array) => void;
  readonly fail: (error: Error) => void;
}

/** Where a connection could not be had, this many ms follow before it is tried again. */
const RETRY = 10_000;

/** The connection was closed before the answer came. */
class ConnectionLost extends Error {}

/** The connection for one scene. Answers come in the order of what was asked. */
class LookConnection {
  readonly scene: string;
  private readonly socket: WebSocket;
  private readonly asked: Asked[] = [];
  private readonly begun = performance.now();
  private wasOpen = false;

  constructor(scene: string) {
    this.scene = scene;
    this.socket = new WebSocket(`${location.origin.replace(/^http/, "ws")}/api/scenes/${scene}/looks`);
    this.socket.binaryType = "arraybuffer";
    this.socket.addEventListener("open", () => (this.wasOpen = true));
    this.socket.addEventListener("message", ({ data }: MessageEvent<ArrayBuffer | string>) => {
      const one = this.asked.shift();
      if (typeof data !== "string") return one?.take(new Uint8Array(data));
      const problem = JSON.parse(data) as Problem;
      one?.fail(new ServiceError(problem.status, problem.detail, problem));
    });
    this.socket.addEventListener("close", () => this.asked.splice(0).forEach((one) => one.fail(new ConnectionLost())));
  }

  get isOpen(): boolean {
    return this.socket.readyState === WebSocket.OPEN;
  }

  /** Whether another one is to be tried in its place. */
  get isOver(): boolean {
    return this.socket.readyState > WebSocket.OPEN && (this.wasOpen || performance.now() - this.begun > RETRY);
  }

  ask(batch: Batch): Promise<Uint8Array> {
    return new Promise((take, fail) => {
      this.asked.push({ take, fail });
      this.socket.send(JSON.stringify(batch));
    });
  }

  close(): void {
    this.socket.close();
  }
}

let connection: LookConnection | null = null;

/** The motion as some edits would make it. The first look of a scene opens its connection. */
export async function lookedAt(scene: string, batch: Batch, byRequest: () => Promise<Uint8Array>): Promise<Uint8Array> {
  if (connection?.scene !== scene || connection.isOver) {
    connection?.close();
    connection = new LookConnection(scene);
  }
  if (!connection.isOpen) return byRequest();
  try {
    return await connection.ask(batch);
  } catch (error) {
    if (error instanceof ConnectionLost) return byRequest();
    throw error;
  }
}

/** Close the connection for a scene that is left. */
export function endLooks(): void {
  connection?.close();
  connection = null;
}
