import { create } from "zustand";

import { useNotices } from "../app/notices";
import type { Input, Order, ScreenSize, Told } from "./messages";
import { after, atFirst, closed, type Live } from "./state";

const NOT_ALLOWED = 4_403;
const ELSEWHERE = 4_409;
const AGAIN_MS = [300, 1_000, 2_000, 5_000];
const FRAME_HEAD_BYTES = 5;

export const useLive = create<Live>()(atFirst);

type Draw = (picture: ImageBitmap) => void;

/** The socket of the live page while its screen is shown. */
class Connection {
  private socket: WebSocket | null = null;
  private draw: Draw = () => undefined;
  private drawing = Promise.resolve();
  private tries = 0;
  private again = 0;
  private number = 0;
  /** What is to be opened once the server has told how things stand. */
  private waiting: { address: string; screen: ScreenSize } | null = null;

  connect(): void {
    const socket = new WebSocket(`${location.protocol === "https:" ? "wss" : "ws"}://${location.host}/live/socket`);
    socket.binaryType = "arraybuffer";
    socket.onmessage = ({ data }: MessageEvent<string | ArrayBuffer>) => {
      if (typeof data === "string") this.hear(JSON.parse(data) as Told);
      else this.show(data);
    };
    socket.onclose = ({ code }) => {
      if (this.socket === socket) this.lost(code);
    };
    this.socket = socket;
  }

  disconnect(): void {
    clearTimeout(this.again);
    const { socket } = this;
    this.socket = null;
    socket?.close();
    useLive.setState({ link: "connecting" });
  }

  /** Frames are drawn by this from now on. */
  drawBy(draw: Draw): void {
    this.draw = draw;
  }

  send(order: Order): void {
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify(order));
  }

  input(input: Input): void {
    this.number = (this.number + 1) % 2 ** 32;
    if (useLive.getState().isIdle) useLive.setState({ isIdle: false });
    if (this.socket?.readyState === WebSocket.OPEN) this.socket.send(JSON.stringify({ ...input, number: this.number }));
  }

  open(address: string, screen: ScreenSize): void {
    if (useLive.getState().link !== "on") {
      this.waiting = { address, screen };
      return;
    }
    useLive.setState({ refusal: null, ended: null, screen, lastScreen: screen, progress: null, choices: null, place: { address, title: "", loading: true } });
    this.send({ kind: "open", address, screen });
  }

  take(order: Omit<Extract<Order, { kind: "take" }>, "kind">): void {
    useLive.setState({ refusal: null, progress: { stage: "taking", done: 0, expected: 0 }, pointed: null });
    this.send({ kind: "take", ...order });
  }

  private lost(code: number): void {
    if (code === ELSEWHERE || code === NOT_ALLOWED) {
      useLive.setState({ ...closed(), link: code === ELSEWHERE ? "elsewhere" : "not_allowed" });
      return;
    }
    useLive.setState({ link: "lost", progress: null });
    const pause = AGAIN_MS[Math.min(this.tries, AGAIN_MS.length - 1)];
    this.tries += 1;
    this.again = window.setTimeout(() => this.connect(), pause);
  }

  private show(data: ArrayBuffer): void {
    const head = new DataView(data);
    const isSharp = head.getUint8(0) === 1;
    const file = new Blob([new Uint8Array(data, FRAME_HEAD_BYTES)]);
    // One after the other: a later frame may be decoded sooner.
    this.drawing = this.drawing
      .then(async () => {
        const picture = await createImageBitmap(file);
        this.draw(picture);
        picture.close();
      })
      .catch(() => undefined)
      .then(() => {
        if (!isSharp) this.send({ kind: "drawn" });
      });
  }

  private hear(told: Told): void {
    useLive.setState(after(told, useLive.getState()));
    if (told.kind === "said") say(told.sentence);
    if (told.kind === "sign_in_kept") say(`Pages of ${told.host} are opened signed in from now on.`);
    if (told.kind !== "hello") return;
    this.tries = 0;
    const { waiting } = this;
    this.waiting = null;
    if (waiting) this.open(waiting.address, waiting.screen);
  }
}

function say(text: string): void {
  useNotices.getState().show({ tone: "info", text });
}

export const connection = new Connection();
