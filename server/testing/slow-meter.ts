// A meter that measures now and then and is asked often: between the instrument and whoever asks, it tells its last answer.
import { connect, createServer, type Server } from 'node:net';

/** Lines out of pieces of text. */
function linesOf(take: (line: string) => void): (piece: Buffer) => void {
  let text = '';
  return (piece) => {
    const lines = `${text}${piece.toString('latin1')}`.split('\n');
    text = lines.pop() ?? '';
    for (const line of lines) take(line.trim());
  };
}

/**
 * Stand before an instrument on loopback.
 * @param question that is answered anew only so often
 * @param every ms
 * @returns the port to be asked at, and how to end
 */
export async function startSlowMeter(
  port: number,
  question: string,
  every: number,
): Promise<{ readonly port: number; readonly stop: () => Promise<void> }> {
  let told: { readonly at: number; readonly answer: string } | null = null;
  const server: Server = createServer((socket) => {
    const instrument = connect(port, '127.0.0.1');
    const asked: string[] = [];
    socket.on('error', () => instrument.destroy());
    instrument.on('error', () => socket.destroy());
    socket.on('close', () => instrument.destroy());
    instrument.on('close', () => socket.destroy());
    socket.on(
      'data',
      linesOf((line) => {
        if (line === question && asked.length === 0 && told && Date.now() - told.at < every) {
          socket.write(`${told.answer}\n`, 'latin1');
          return;
        }
        if (line.includes('?')) asked.push(line);
        instrument.write(`${line}\n`);
      }),
    );
    instrument.on(
      'data',
      linesOf((answer) => {
        if (asked.shift() === question) told = { at: Date.now(), answer };
        socket.write(`${answer}\n`, 'latin1');
      }),
    );
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = server.address();
  return {
    port: typeof address === 'object' && address ? address.port : 0,
    stop: () => new Promise((resolve) => server.close(() => resolve())),
  };
}
