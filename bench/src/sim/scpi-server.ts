// The instrument's side of SCPI: a line in, a reply out, common commands, an error queue, and faults on demand.
import { createServer, type Server, type Socket } from 'node:net';
import { blockOf } from '../scpi/reply.ts';

/** What an instrument does with a header. A string is a reply, bytes go out as a block, null is no reply. */
export type Handler = (args: readonly string[]) => string | Uint8Array | null;

export interface Device {
  readonly identity: string;
  /** By header in short form, upper case, queries with their "?": `MEAS:VOLT?`. */
  readonly commands: Readonly<Record<string, Handler>>;
  /** Put it into its state at power-on. */
  readonly reset: () => void;
  /** Told of every line that comes, so that a watchdog can start anew. */
  readonly heard?: () => void;
}

/** What can be made to go wrong. */
export const FAULTS = ['drop', 'hang', 'garble', 'reboot', 'freeze'] as const;
export type Fault = (typeof FAULTS)[number];

/** A parameter the instrument will not take. */
export class Refusal extends Error {
  constructor(
    readonly code: number,
    message: string,
  ) {
    super(message);
  }
}
export const outOfRange = (what: string): Refusal => new Refusal(-222, `Data out of range;${what}`);
export const illegal = (what: string): Refusal => new Refusal(-224, `Illegal parameter value;${what}`);

/** A number parameter. @throws Refusal */
export function numberArg(args: readonly string[], index: number, low: number, high: number): number {
  const value = Number(args[index]);
  if (args[index] === undefined || args[index]?.trim() === '') throw new Refusal(-109, 'Missing parameter');
  if (!Number.isFinite(value)) throw new Refusal(-104, 'Data type error');
  if (value < low || value > high) throw outOfRange(`${value} is not in ${low} to ${high}`);
  return value;
}

/** ON, OFF, 1 or 0. @throws Refusal */
export function switchArg(args: readonly string[], index: number): boolean {
  const word = (args[index] ?? '').trim().toUpperCase();
  if (word === 'ON' || word === '1') return true;
  if (word === 'OFF' || word === '0') return false;
  throw illegal(word);
}

const MOST_ERRORS = 16;
const LONGEST_LINE = 4096;
const REBOOT_MILLISECONDS = 800;

/** Headers in long or short form mean the same: MEASure:VOLTage? is MEAS:VOLT?. SCPI-1999, volume 1, 6.2.1 */
function headerOf(text: string): string {
  return text
    .replace(/^:/, '')
    .split(':')
    .map((part) => /^([A-Za-z]+)(\d*)(\??)$/.exec(part))
    .map((found, index) => {
      if (!found) return text.split(':')[index]?.toUpperCase() ?? '';
      const [, word = '', digits = '', query = ''] = found;
      const upper = word.toUpperCase();
      return `${shortForm(upper)}${digits}${query}`;
    })
    .join(':');
}

/** The short form of a keyword: its first four letters, or three when the fourth is a vowel. SCPI-1999, 6.2.1 */
function shortForm(word: string): string {
  if (word.length <= 4) return word;
  return /[AEIOU]/.test(word[3] ?? '') ? word.slice(0, 3) : word.slice(0, 4);
}

/** One instrument on its own loopback port. */
export class ScpiServer {
  readonly #device: Device;
  readonly #server: Server;
  readonly #sockets = new Set<Socket>();
  #errors: string[] = [];
  #hung = false;
  #garbling = false;
  #frozen: Map<string, string | Uint8Array> | null = null;
  #rebooting = false;

  constructor(device: Device) {
    this.#device = device;
    this.#server = createServer((socket) => this.#greet(socket));
  }

  /** Listen on loopback. @param port 0 for any @returns the port */
  listen(port = 0): Promise<number> {
    return new Promise((resolve, reject) => {
      this.#server.once('error', reject);
      this.#server.listen(port, '127.0.0.1', () => {
        const address = this.#server.address();
        resolve(typeof address === 'object' && address ? address.port : port);
      });
    });
  }

  close(): Promise<void> {
    for (const socket of this.#sockets) socket.destroy();
    return new Promise((resolve) => this.#server.close(() => resolve()));
  }

  /** Make something go wrong, or end what lasts (hang, garble, freeze). */
  fault(fault: Fault | 'none'): void {
    if (fault === 'none') {
      this.#hung = false;
      this.#garbling = false;
      this.#frozen = null;
    } else if (fault === 'drop') this.#hangUp();
    else if (fault === 'hang') this.#hung = true;
    else if (fault === 'garble') this.#garbling = true;
    else if (fault === 'freeze') this.#frozen = new Map();
    else {
      // Gone for a moment, then as after power-on.
      this.#hangUp();
      this.#rebooting = true;
      this.#errors = [];
      this.#device.reset();
      setTimeout(() => {
        this.#rebooting = false;
      }, REBOOT_MILLISECONDS);
    }
  }

  #hangUp(): void {
    for (const socket of this.#sockets) socket.destroy();
  }

  #greet(socket: Socket): void {
    if (this.#rebooting) {
      socket.destroy();
      return;
    }
    this.#sockets.add(socket);
    socket.setNoDelay(true);
    let text = '';
    socket.on('data', (piece) => {
      text += piece.toString('latin1');
      if (text.length > LONGEST_LINE && !text.includes('\n')) {
        text = '';
        this.#complain(-223, 'Too much data');
      }
      for (let end = text.indexOf('\n'); end >= 0; end = text.indexOf('\n')) {
        const line = text.slice(0, end).replace(/\r$/, '');
        text = text.slice(end + 1);
        this.#device.heard?.();
        if (!this.#hung) for (const command of line.split(';')) this.#obey(command.trim(), socket);
      }
    });
    socket.on('error', () => socket.destroy());
    socket.on('close', () => this.#sockets.delete(socket));
  }

  #obey(command: string, socket: Socket): void {
    if (command === '') return;
    const [, head = '', rest = ''] = /^(\S+)\s*(.*)$/.exec(command) ?? [];
    const header = headerOf(head);
    const args = rest === '' ? [] : rest.split(',').map((one) => one.trim());
    try {
      const common = this.#common(header);
      const reply = common === undefined ? this.#own(header, args, command) : common;
      if (reply !== null) this.#answer(reply, socket);
    } catch (error) {
      if (error instanceof Refusal) this.#complain(error.code, error.message);
      else if (error instanceof RangeError) this.#complain(-224, `Illegal parameter value;${error.message}`);
      else this.#complain(-310, 'System error');
    }
  }

  /** IEEE 488.2-1992, 10. @returns undefined for a header that is not common */
  #common(header: string): string | null | undefined {
    switch (header) {
      case '*IDN?':
        return this.#device.identity;
      case '*RST':
        this.#device.reset();
        return null;
      case '*CLS':
        this.#errors = [];
        return null;
      case '*OPC?':
        return '1';
      case '*TST?':
        return '0';
      case '*ESR?':
      case '*STB?':
        return this.#errors.length > 0 ? '4' : '0';
      case 'SYST:ERR?':
        return this.#errors.shift() ?? '0,"No error"';
      case 'SYST:VERS?':
        return '1999.0';
      default:
        return undefined;
    }
  }

  #own(header: string, args: readonly string[], command: string): string | Uint8Array | null {
    const handler = this.#device.commands[header];
    if (!handler) throw new Refusal(-113, `Undefined header;${command.slice(0, 40)}`);
    if (!this.#frozen || !header.endsWith('?')) return handler(args);
    const kept = this.#frozen.get(command);
    if (kept !== undefined) return kept;
    const fresh = handler(args);
    if (fresh !== null) this.#frozen.set(command, fresh);
    return fresh;
  }

  #answer(reply: string | Uint8Array, socket: Socket): void {
    if (socket.destroyed) return;
    if (typeof reply !== 'string') {
      socket.write(blockOf(reply));
      socket.write('\n');
    } else socket.write(`${this.#garbling ? reply.replace(/\d/g, '#') : reply}\n`, 'latin1');
  }

  #complain(code: number, message: string): void {
    if (this.#errors.length >= MOST_ERRORS) this.#errors[MOST_ERRORS - 1] = '-350,"Queue overflow"';
    else this.#errors.push(`${code},"${message.replaceAll('"', "'")}"`);
  }
}
