// A serial port: for meters that have nothing else.
import type { SerialFrame } from '@lastmark/core/instrument';
import { SerialPort, type SerialPortMock } from 'serialport';
import { type Line, lineOf, type Way } from './way.ts';

type Opener = (settings: ConstructorParameters<typeof SerialPort>[0]) => SerialPort | SerialPortMock;

/** A port at a path of this machine. @param open replaced by a port without a wire in tests */
export const overSerial =
  (path: string, frame: SerialFrame, open: Opener = (settings) => new SerialPort(settings)): Way =>
  (): Line => {
    const { baud: baudRate, dataBits, parity, stopBits } = frame;
    const port = open({ path, baudRate, dataBits, parity, stopBits, autoOpen: true });
    const line = lineOf(port, 'open');
    return {
      ...line,
      // A port that cannot be opened says so, and nothing more: that is its end.
      onClose: (told) => {
        let ended = false;
        const once = () => {
          if (!ended) told();
          ended = true;
        };
        port.on('close', once);
        port.on('error', once);
      },
      destroy: () => {
        if (port.isOpen) port.close(() => undefined);
        else port.once('open', () => port.close(() => undefined));
      },
    };
  };
