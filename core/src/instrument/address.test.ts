import { describe, expect, it } from 'vitest';
import { parseAddress } from './index.ts';

describe('an address', () => {
  it.each([
    ['192.168.1.20:5025', { way: 'socket', host: '192.168.1.20', port: 5025, more: [] }],
    ['load.lab:5025+5026+5027', { way: 'socket', host: 'load.lab', port: 5025, more: [5026, 5027] }],
    [' [fe80::1]:1 ', { way: 'socket', host: 'fe80::1', port: 1, more: [] }],
    ['hislip://analyser.lab', { way: 'hislip', host: 'analyser.lab', port: 4880, device: 'hislip0' }],
    ['hislip://10.0.0.7:4881/hislip1', { way: 'hislip', host: '10.0.0.7', port: 4881, device: 'hislip1' }],
    [
      'serial:/dev/ttyUSB0',
      { way: 'serial', path: '/dev/ttyUSB0', baud: 9600, dataBits: 8, parity: 'none', stopBits: 1 },
    ],
    ['serial:COM3@115200,7E2', { way: 'serial', path: 'COM3', baud: 115200, dataBits: 7, parity: 'even', stopBits: 2 }],
    ['file:/home/bench/log of today.csv', { way: 'file', path: '/home/bench/log of today.csv' }],
  ])('%s is taken apart', (text, parts) => {
    expect(parseAddress(text)).toEqual(parts);
  });

  it.each([
    '',
    '192.168.1.20',
    '192.168.1.20:0',
    '192.168.1.20:70000',
    '192.168.1.20:5025+0',
    '192.168.1.20:5025+',
    'hislip://',
    'hislip://host:99999',
    'serial:/etc/passwd',
    'serial:/dev/sda@9600',
    'serial:/dev/ttyUSB0@9600,9N1',
    'serial:/dev/ttyUSB/../../sda',
    'file:log.csv',
    'http://host:80',
  ])('"%s" is none', (text) => {
    expect(parseAddress(text)).toBeNull();
  });
});
