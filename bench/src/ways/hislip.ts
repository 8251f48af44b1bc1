// HiSLIP: messages of SCPI over two sockets. IVI-6.1 (revision 2.0), of which this speaks the synchronised mode of a client
// that neither locks nor clears: what a question and its answer need.
import { createConnection, type Socket, type TcpNetConnectOpts } from 'node:net';
import type { Line, Way } from './way.ts';

/** Kinds of messages, table 4. */
export const MESSAGE = {
  initialize: 0,
  initializeResponse: 1,
  fatalError: 2,
  error: 3,
  data: 6,
  dataEnd: 7,
  interrupted: 13,
  asyncInitialize: 17,
  asyncInitializeResponse: 18,
} as const;

const HEADER_BYTES = 16;
/** Longest payload taken, bytes: as for blocks over a socket. */
const LONGEST_PAYLOAD = 64 * 1024 * 1024;
const FIRST_MESSAGE = 0xffff_ff00;
/** Version 1.0, and two letters for who asks. */
const OURS = (0x0100 << 16) | 0x4c4d;

export interface HislipMessage {
  readonly kind: number;
  readonly control: number;
  readonly parameter: number;
  readonly payload: Uint8Array;
}

/** A message as it goes over the wire: table 3. */
export function hislipBytes({ kind, control, parameter, payload }: HislipMessage): Uint8Array {
  const bytes = Buffer.alloc(HEADER_BYTES + payload.length);
  bytes.write('HS', 0, 'latin1');
  bytes.writeUInt8(kind, 2);
  bytes.writeUInt8(control, 3);
  bytes.writeUInt32BE(parameter >>> 0, 4);
  bytes.writeBigUInt64BE(BigInt(payload.length), 8);
  bytes.set(payload, HEADER_BYTES);
  return bytes;
}

/** Takes bytes as they come and gives messages as they are complete. */
export class HislipReader {
  #pieces: Buffer[] = [];
  #held = 0;

  /** @throws Error for what is no HiSLIP, or too long */
  push(piece: Uint8Array): HislipMessage[] {
    this.#pieces.push(Buffer.from(piece));
    this.#held += piece.length;
    const messages: HislipMessage[] = [];
    for (;;) {
      if (this.#held < HEADER_BYTES) return messages;
      if ((this.#pieces[0]?.length ?? 0) < HEADER_BYTES) this.#pieces = [Buffer.concat(this.#pieces)];
      const head = this.#pieces[0] as Buffer;
      if (head.toString('latin1', 0, 2) !== 'HS') throw new Error('It does not speak HiSLIP.');
      const length = Number(head.readBigUInt64BE(8));
      if (length > LONGEST_PAYLOAD)
        throw new Error(`A message of ${length} bytes is beyond the ${LONGEST_PAYLOAD} taken.`);
      if (this.#held < HEADER_BYTES + length) return messages;
      const all = Buffer.concat(this.#pieces);
      messages.push({
        kind: all.readUInt8(2),
        control: all.readUInt8(3),
        parameter: all.readUInt32BE(4),
        payload: all.subarray(HEADER_BYTES, HEADER_BYTES + length),
      });
      const rest = all.subarray(HEADER_BYTES + length);
      this.#pieces = [rest];
      this.#held = rest.length;
    }
  }
}

const NOTHING = new Uint8Array(0);
const textOf = (payload: Uint8Array): string => new TextDecoder().decode(payload).slice(0, 200);

/** A session: the synchronous channel carries lines, the asynchronous one only has to be there. 6.1 */
class Session implements Line {
  readonly #sync: Socket;
  #async: Socket | null = null;
  readonly #connect: () => Socket;
  #messageId = FIRST_MESSAGE;
  /** An answer was taken whole since the last message: the next one says so. 3.1.2, RMT-delivered */
  #delivered = false;
  #opened: () => void = () => undefined;
  #told: (piece: Uint8Array) => void = () => undefined;
  #failed: (error: Error) => void = () => undefined;
  #closed: () => void = () => undefined;
  #over = false;

  constructor(connect: () => Socket, device: string) {
    this.#connect = connect;
    this.#sync = this.#channel((message) => this.#take(message));
    this.#sync.on('connect', () =>
      this.#send(this.#sync, MESSAGE.initialize, 0, OURS, new TextEncoder().encode(device)),
    );
  }

  #channel(take: (message: HislipMessage) => void): Socket {
    const socket = this.#connect();
    const reader = new HislipReader();
    socket.setNoDelay(true);
    socket.on('data', (piece) => {
      try {
        for (const message of reader.push(piece)) take(message);
      } catch (error) {
        this.#fail(error instanceof Error ? error : new Error('garbled'));
      }
    });
    socket.on('error', (error) => this.#failed(error));
    // Either channel gone is the session gone. 6.3
    socket.on('close', () => this.destroy());
    return socket;
  }

  #send(socket: Socket, kind: number, control: number, parameter: number, payload: Uint8Array = NOTHING): void {
    socket.write(hislipBytes({ kind, control, parameter, payload }));
  }

  #take({ kind, control, parameter, payload }: HislipMessage): void {
    switch (kind) {
      case MESSAGE.initializeResponse: {
        const session = parameter & 0xffff;
        const second = this.#channel((message) => {
          if (message.kind === MESSAGE.asyncInitializeResponse) this.#opened();
          else this.#wrong(message);
        });
        second.on('connect', () => this.#send(second, MESSAGE.asyncInitialize, 0, session));
        this.#async = second;
        return;
      }
      case MESSAGE.data:
      case MESSAGE.dataEnd:
        this.#told(payload);
        if (kind === MESSAGE.dataEnd) {
          this.#delivered = true;
          // The end of a message is its end, whether or not the line is ended in it too.
          if (payload.at(-1) !== 0x0a) this.#told(Uint8Array.of(0x0a));
        }
        return;
      default:
        this.#wrong({ kind, control, parameter, payload });
    }
  }

  #wrong({ kind, control, payload }: HislipMessage): void {
    if (kind === MESSAGE.fatalError) this.#fail(new Error(`HiSLIP ended with error ${control}: ${textOf(payload)}`));
    else if (kind === MESSAGE.error) this.#failed(new Error(`HiSLIP error ${control}: ${textOf(payload)}`));
  }

  #fail(error: Error): void {
    this.#failed(error);
    this.destroy();
  }

  onOpen(told: () => void): void {
    this.#opened = told;
  }
  onData(told: (piece: Uint8Array) => void): void {
    this.#told = told;
  }
  onError(told: (error: Error) => void): void {
    this.#failed = told;
  }
  onClose(told: () => void): void {
    this.#closed = told;
  }

  write(text: string): void {
    this.#send(this.#sync, MESSAGE.dataEnd, this.#delivered ? 1 : 0, this.#messageId, new TextEncoder().encode(text));
    this.#delivered = false;
    this.#messageId = (this.#messageId + 2) >>> 0;
  }

  destroy(): void {
    if (this.#over) return;
    this.#over = true;
    this.#sync.destroy();
    this.#async?.destroy();
    this.#closed();
  }
}

/** @param device sub-address, as `hislip0` */
export const overHislip =
  (host: string, port: number, device: string, lookup?: TcpNetConnectOpts['lookup']): Way =>
  () =>
    new Session(() => createConnection({ host, port, ...(lookup ? { lookup } : {}) }), device);
