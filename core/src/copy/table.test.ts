import { describe, expect, it } from 'vitest';
import { readCopies, typedBytes, typedRate, typedSeconds } from './index.ts';

describe('copies as typed', () => {
  it.each([
    ['8 GB', 8e9],
    ['8', 8e9],
    ['1,5 GB', 1.5e9],
    ['8 GiB', 8_589_934_592],
    ['700MB', 7e8],
    ['512 bytes', 512],
    ['8 GBytes', 8e9],
    ['2 gigabytes', 2e9],
    ['1.024,5 MB', 1_024_500_000],
    ['8 000 MB', 8e9],
    ['8e9 B', 8e9],
  ])('%s', (text, bytes) => expect(typedBytes(text)).toBe(bytes));
  it.each(['', 'big', '-3 GB', '0', '8 ZB'])('%j is no size', (text) => expect(typedBytes(text)).toBeNaN());
  it.each([
    ['102', 102],
    ['1:42', 102],
    ['1:02:03', 3723],
    ['0:07,5', 7.5],
    ['2 min', 120],
    ['850 ms', 0.85],
    ['2.04e2', 204],
  ])('%s', (text, seconds) => expect(typedSeconds(text)).toBeCloseTo(seconds, 9));
  it.each(['', 'soon'])('%j is no time', (text) => expect(typedSeconds(text)).toBeNaN());
  it.each([
    ['38.4 MB/s', 307.2e6],
    ['38,4', 307.2e6],
    ['480 Mbit/s', 480e6],
    ['10 Gbps', 10e9],
    ['10 GBps', 80e9],
    ['1 GiB/s', 8 * 2 ** 30],
    ['900 kB/s', 7.2e6],
    ['512 bytes/s', 4096],
    ['300 mbps', 300e6],
    ['37.5 MB/sec', 300e6],
    ['1,2e3 kB/s', 9.6e6],
  ])('%s', (text, bits) => expect(typedRate(text)).toBeCloseTo(bits, 3));
  it.each(['', 'fast', '10 m', '-3 MB/s', '0', '38 mb/s', '1 gib/s'])('%j is no rate', (text) =>
    expect(typedRate(text)).toBeNaN(),
  );
});

describe('a table of copies', () => {
  it.each([
    ['size_GB,time_min\n8,3.4'],
    ['size_MB,Duration [ms]\n"8,000",204000'],
    ['size_TB;time (hours)\n0,008;0,056666667'],
    ['Size (GB);Time (mm:ss)\n8;3:24'],
    ['size [GB]\telapsed s\n8\t204'],
    ['size_GB,seconds, speed (Gbit/s)\n8,,0.313725490'],
    ['MB;s\n8000;204'],
    ['GiB;ms\n7.450580596923828;204000'],
    ['size (MBytes);time / min\n8000;3,4'],
    ['size/MB;t, s\n8000;204'],
    ['bytes total;Seconds\n8e9;204'],
    ['size_GB;Gbit/s\n8;0,31372549'],
    ['size_GB;MiB/s\n8;37.3989555'],
    ['size_GB;mbps\n8;313,72549'],
    ['size_GB;bandwidth [MBytes/sec]\n8;39.2156863'],
    ['time;size_GB;duration_s\n0:14:02;8;204'],
    ['start;size_MB;elapsed (mm:ss)\n14:02;8.000,0;3:24'],
  ])('%j is 8 GB in 204 s', (text) => {
    const read = readCopies(text);
    const [copy] = read.ok ? read.copies : [];
    expect(copy).toMatchObject({ bytes: 8e9, seconds: expect.closeTo(204, 3) });
  });
  it('says what was taken for granted where no unit is stated, and only there', () => {
    const said = (text: string) => {
      const read = readCopies(text);
      return read.ok ? read.assumed : [read.reason];
    };
    expect(said('Size;Time taken\n8;204')).toEqual(['No unit is stated: "Size" in GB, "Time taken" in s is assumed.']);
    expect(said('Size;rate\n8 GB;40')).toEqual(['No unit is stated: "rate" in MB/s is assumed.']);
    expect(said('Size;Time\n8 GB;3:24')).toEqual([]);
    expect(said('size_GB;MiB/s\n8;40')).toEqual([]);
  });
  it.each([
    ['host to device', 'to the device'],
    ['from laptop to phone', 'to the device'],
    ['phone → laptop', 'from the device'],
    ['device->host', 'from the device'],
    ['to the computer', 'from the device'],
    ['to the stick', 'to the device'],
    ['from the PC', 'to the device'],
    ['W', 'to the device'],
    ['upload', 'to the device'],
    ['write to the stick', 'to the device'],
    ['copied to phone', 'to the device'],
    ['copy to laptop', 'from the device'],
    ['read to the PC', 'from the device'],
    ['rd', 'from the device'],
    ['reading', 'from the device'],
  ])('%s is %s', (typed, direction) => {
    const read = readCopies(`size_GB;time_s;direction\n8;204;${typed}`);
    expect(read.ok ? read.copies[0]?.direction : read.reason).toBe(direction);
  });
  it('is a line a copy, with its units in heads or cells', () => {
    const read = readCopies(
      [
        '# hut bench, two laptops',
        'Files;Direction;Size (GB);Time (s);Host;Link;Host link elsewhere;Errors;Fell back;Remark',
        'one film;to the device;8;204,2;laptop, left port;480 Mbit/s;10 Gbit/s;0;no;',
        '4000 photos;read;2,5;1:42;laptop, left port;;;2;yes;warm',
      ].join('\r\n'),
    );
    if (!read.ok) throw new Error(read.reason);
    expect(read.copies).toEqual([
      {
        mix: 'one film',
        direction: 'to the device',
        bytes: 8e9,
        seconds: 204.2,
        host: 'laptop, left port',
        link: 480e6,
        hostLink: 10e9,
        errors: 0,
        fellBack: false,
        note: '',
      },
      {
        mix: '4000 photos',
        direction: 'from the device',
        bytes: 2.5e9,
        seconds: 102,
        host: 'laptop, left port',
        link: null,
        hostLink: null,
        errors: 2,
        fellBack: true,
        note: 'warm',
      },
    ]);
  });

  it('as a program writes it: bytes and a rate', () => {
    const read = readCopies('operation,bytes,MB/s\nwrite,1000000000,40.0\nread,1000000000,50\n');
    if (!read.ok) throw new Error(read.reason);
    expect(read.copies.map(({ direction, seconds }) => [direction, seconds])).toEqual([
      ['to the device', 25],
      ['from the device', 20],
    ]);
    expect(read.copies[0]).toMatchObject({ mix: null, host: null });
  });

  it.each([
    ['', 1, 'nothing in it'],
    ['size_GB,note\n8,x', 1, 'no time, nor a rate'],
    ['time_s\n8', 1, 'no size'],
    ['size_GB;start time;end time\n8;14:02:00;14:05:24', 1, 'no time, nor a rate'],
    ['size_GB,time_s', 1, 'no copy in it'],
    ['size_GB,time_s\n8,204\n8,soon', 3, '“soon” is no time'],
    ['size_GB,time_s\n,204', 2, 'its size is missing'],
    ['size_GB,time_s\n8,0', 2, '“0” is no time'],
    ['size_GB,time_s,way\n8,204,sideways', 2, '“sideways” is no direction'],
    ['size_GB,time_s,link\n8,204,480', 2, '“480” is no link'],
    ['size_GB,time_s,errors\n8,204,some', 2, '“some” is no count of errors'],
    ['size_GB,rate\n8,quick', 2, '“quick” is no rate'],
    ['size (M);time_s\n8000;204', 1, '“size (M)”: M is no unit it can be in. Write GB, MB, GiB or B.'],
    ['size_Gbit;time_s\n64;204', 1, 'Gbit is no unit'],
    ['size_GB;speed mb/s\n8;38', 1, 'mb/s is no unit it can be in. Write MB/s or Mbit/s.'],
    ['size_GB;elapsed_ns\n8;2e11', 1, 'ns is no unit it can be in. Write s, min or h.'],
    ['size;time_s\n8000000000;204', 2, '“8000000000” of what? Call the column size_B, or size_GB.'],
    ['size_GB;write MB/s;read MB/s\n8;40;50', 1, '“write MB/s” and “read MB/s” both tell a rate.'],
    ['size_GB;time_s;direction\n8;204;read to the stick', 2, '“read to the stick” is no direction'],
    ['size_GB;time_s;direction\n8;204;camera to phone', 2, '“camera to phone” is no direction'],
  ])('%j is refused at its line', (text, line, reason) => {
    const read = readCopies(text);
    expect(read.ok ? null : read.line).toBe(line);
    expect(read.ok ? '' : read.reason).toContain(reason);
  });
});
