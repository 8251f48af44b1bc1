// Where an instrument is spoken to: a socket, HiSLIP, a serial port, or the file another program writes.

/** How the bits of a serial port are framed. */
export interface SerialFrame {
  readonly baud: number;
  readonly dataBits: 7 | 8;
  readonly parity: 'none' | 'even' | 'odd';
  readonly stopBits: 1 | 2;
}

export type Address =
  /** `more` ports are those of its further channels, in order. */
  | { readonly way: 'socket'; readonly host: string; readonly port: number; readonly more: readonly number[] }
  /** IVI-6.1; `device` is the sub-address within the host. */
  | { readonly way: 'hislip'; readonly host: string; readonly port: number; readonly device: string }
  | ({ readonly way: 'serial'; readonly path: string } & SerialFrame)
  /** The newest line of a growing file. */
  | { readonly way: 'file'; readonly path: string };

/** Port of HiSLIP. IVI-6.1, 2.3 */
const HISLIP_PORT = 4880;
const HOST = String.raw`(?<host>[A-Za-z0-9.-]+|\[[0-9A-Fa-f:]+\])`;
const SOCKET = new RegExp(String.raw`^${HOST}:(?<port>\d{1,5})(?<more>(?:\+\d{1,5}){0,15})$`);
const HISLIP = new RegExp(String.raw`^hislip://${HOST}(?::(?<port>\d{1,5}))?(?:/(?<device>[A-Za-z0-9_-]{1,40}))?$`);
/** Names serial ports have; any other path may be a file of the machine. */
const SERIAL =
  /^serial:(?<path>\/dev\/(?:tty(?:USB|ACM|S|AMA)|cu\.|serial\/by-id\/)[A-Za-z0-9._:-]{0,90}|COM\d{1,3})(?:@(?<baud>\d{2,7})(?:,(?<bits>[78])(?<parity>[NEO])(?<stop>[12]))?)?$/;
const FILE = /^file:(?<path>\/[^\0\n\r]{1,200})$/;
const PARITIES = { N: 'none', E: 'even', O: 'odd' } as const;

/** What an address may look like, for the one who mistyped it. */
export const ADDRESS_FORMS =
  '192.168.1.20:5025, 192.168.1.20:5025+5026 (a port each channel), hislip://192.168.1.20, serial:COM3@9600 or file:/home/bench/logs/meter.csv';

/**
 * An address taken apart; null for one that is none.
 * @example parseAddress('hislip://192.168.1.20') // { way: 'hislip', host: '192.168.1.20', port: 4880, device: 'hislip0' }
 * @example parseAddress('serial:/dev/ttyUSB0@19200,7E1')?.way // 'serial'
 */
export function parseAddress(text: string): Address | null {
  const whole = text.trim();
  const bare = (host = '') => host.replace(/^\[|\]$/g, '');
  const isPort = (port: number) => port >= 1 && port <= 65_535;
  const socket = SOCKET.exec(whole)?.groups;
  if (socket) {
    const port = Number(socket.port);
    const more = (socket.more ?? '').split('+').slice(1).map(Number);
    return [port, ...more].every(isPort) ? { way: 'socket', host: bare(socket.host), port, more } : null;
  }
  const hislip = HISLIP.exec(whole)?.groups;
  if (hislip) {
    const port = Number(hislip.port ?? HISLIP_PORT);
    return isPort(port) ? { way: 'hislip', host: bare(hislip.host), port, device: hislip.device ?? 'hislip0' } : null;
  }
  const serial = SERIAL.exec(whole)?.groups;
  if (serial?.path)
    return {
      way: 'serial',
      path: serial.path,
      baud: Number(serial.baud ?? 9600),
      dataBits: serial.bits === '7' ? 7 : 8,
      parity: PARITIES[(serial.parity ?? 'N') as keyof typeof PARITIES],
      stopBits: serial.stop === '2' ? 2 : 1,
    };
  const file = FILE.exec(whole)?.groups;
  return file?.path ? { way: 'file', path: file.path } : null;
}
