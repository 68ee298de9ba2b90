import net from 'node:net'

const bound = (port: number): Promise<number | null> =>
  new Promise((resolve) => {
    const probe = net
      .createServer()
      .once('error', () => resolve(null))
      .listen(port, '127.0.0.1', () => {
        const found = (probe.address() as net.AddressInfo).port
        probe.close(() => resolve(found))
      })
  })

/** A port on loopback that nobody listens on: the one wished for, where it is free. */
export async function freePort(wished = 0): Promise<number> {
  const port = (await bound(wished)) ?? (await bound(0))
  if (port === null) throw new Error('No port of 127.0.0.1 is free.')
  return port
}
