// The hosts of a cluster: which of them answers, and which one this process speaks to. Every connection goes to one host for
// as long as that is well; when it is not, its connections are cut, so that nobody waits for a host that is gone.
import { connect, type Socket } from 'node:net';
import { createConnection, type Connection as Plain, type RowDataPacket } from 'mysql2/promise';
import type { Address, Host } from './address.ts';

/** How a host is: takes everything; is there, but gives way to others (it hands its data to a new one); cannot be used. */
type State = 'well' | 'busy' | 'away';

const LOOK_MILLISECONDS = 500;
/** A host that does not answer so long is as good as gone, ms. */
export const SILENT_MILLISECONDS = 2000;
/** What a host says of itself when it takes everything. */
const SYNCED = 4;
const DONOR = 2;
const ASK =
  "SELECT VARIABLE_NAME AS name, VARIABLE_VALUE AS value FROM information_schema.GLOBAL_STATUS WHERE VARIABLE_NAME IN ('WSREP_READY', 'WSREP_LOCAL_STATE')";

interface Node extends Host {
  state: State;
  readonly sockets: Set<Socket>;
  plain: Promise<Plain> | null;
}

export class Nodes {
  readonly #address: Address;
  readonly #nodes: readonly [Node, ...Node[]];
  readonly #timer: NodeJS.Timeout;
  #current: Node;
  #looking = false;

  constructor(address: Address) {
    this.#address = address;
    const [first, ...others] = address.hosts.map(
      (host): Node => ({ ...host, state: 'well', sockets: new Set(), plain: null }),
    );
    this.#nodes = [first as Node, ...others];
    this.#current = this.#nodes[0];
    this.#timer = setInterval(() => void this.#look(), LOOK_MILLISECONDS);
    this.#timer.unref();
  }

  /** A connection to the host everything goes to now. */
  readonly stream = (): Socket => {
    const node = this.#current;
    const socket = connect(node.port, node.host);
    socket.setNoDelay(true);
    node.sockets.add(socket);
    let open = false;
    socket.once('connect', () => {
      open = true;
    });
    socket.once('close', () => {
      node.sockets.delete(socket);
      // Whoever refuses is not asked again before it answers.
      if (!open) this.#is(node, 'away');
    });
    return socket;
  };

  #is(node: Node, state: State): void {
    node.state = state;
    if (this.#current.state === 'well') return;
    const better =
      this.#nodes.find((one) => one.state === 'well') ??
      (this.#current.state === 'busy' ? undefined : this.#nodes.find((one) => one.state === 'busy'));
    const left = this.#current;
    if (better) this.#current = better;
    if (better || left.state === 'away') for (const socket of left.sockets) socket.destroy();
  }

  async #look(): Promise<void> {
    if (this.#looking) return;
    this.#looking = true;
    try {
      await Promise.all(this.#nodes.map((node) => this.#lookAt(node)));
    } finally {
      this.#looking = false;
    }
  }

  async #lookAt(node: Node): Promise<void> {
    let late: NodeJS.Timeout | undefined;
    try {
      const silent = new Promise<never>((_, reject) => {
        late = setTimeout(() => reject(new Error('silent')), SILENT_MILLISECONDS);
        late.unref();
      });
      this.#is(node, await Promise.race([this.#ask(node), silent]));
    } catch {
      const plain = node.plain;
      node.plain = null;
      void plain?.then((one) => one.destroy()).catch(() => undefined);
      this.#is(node, 'away');
    } finally {
      clearTimeout(late);
    }
  }

  async #ask(node: Node): Promise<State> {
    const { user, password } = this.#address;
    node.plain ??= createConnection({
      host: node.host,
      port: node.port,
      user,
      password,
      connectTimeout: SILENT_MILLISECONDS,
    }).then((made) => {
      made.on('error', () => undefined);
      return made;
    });
    const [rows] = await (await node.plain).query<RowDataPacket[]>(ASK);
    const told = new Map(rows.map(({ name, value }) => [String(name).toUpperCase(), String(value)]));
    // What is part of no cluster says nothing of it.
    if (!told.has('WSREP_READY')) return 'well';
    const state = Number(told.get('WSREP_LOCAL_STATE'));
    if (told.get('WSREP_READY') !== 'ON') return 'away';
    return state === SYNCED ? 'well' : state === DONOR ? 'busy' : 'away';
  }

  /** Look no more. */
  close(): void {
    clearInterval(this.#timer);
    for (const { plain } of this.#nodes) void plain?.then((one) => one.destroy()).catch(() => undefined);
  }
}
