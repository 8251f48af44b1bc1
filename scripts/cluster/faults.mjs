// What may happen to a host or a copy, and how it is mended.

const pause = (milliseconds) => new Promise((resolve) => setTimeout(resolve, milliseconds));
/** Longer than a silent host is waited for. */
const FROZEN = 7000;
/** Longer than a run waits for its copy before another takes it over. */
const STOPPED = 6000;

/**
 * @param dead how long a host that was killed is away, ms: no machine is back at once
 * @returns name and what to do, which is over when everything is as before
 */
export function faultsOf({ cluster, copies, network, dead }) {
  const host = (at) => cluster.hosts[at % cluster.hosts.length];
  const copy = (at) => copies[at % copies.length];
  return [
    {
      name: 'host killed',
      run: async (at) => {
        await host(at).kill();
        await pause(dead);
        await host(at).start();
      },
    },
    {
      name: 'copy killed',
      run: async (at) => {
        await copy(at).kill();
        await copy(at).start();
      },
    },
    {
      name: 'host stopped in its tracks',
      run: async (at) => {
        host(at).freeze();
        await pause(FROZEN);
        host(at).thaw();
      },
    },
    {
      name: 'copy stopped in its tracks',
      run: async (at) => {
        copy(at).freeze();
        await pause(STOPPED);
        copy(at).thaw();
      },
    },
    ...(network
      ? [
          {
            name: 'host cut off',
            run: async (at) => {
              network.cut(at % cluster.hosts.length);
              await pause(FROZEN);
              network.mend(at % cluster.hosts.length);
            },
          },
        ]
      : []),
  ];
}
