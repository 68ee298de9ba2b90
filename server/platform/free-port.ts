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

/** Ports that browsers and Node's fetch refuse to open: the “bad ports” of the Fetch standard. */
const refused = new Set([
  1, 7, 9, 11, 13, 15, 17, 19, 20, 21, 22, 23, 25, 37, 42, 43, 53, 69, 77, 79, 87, 95, 101, 102, 103, 104,
  109, 110, 111, 113, 115, 117, 119, 123, 135, 137, 139, 143, 161, 179, 389, 427, 465, 512, 513, 514, 515,
  526, 530, 531, 532, 540, 548, 554, 556, 563, 587, 601, 636, 989, 990, 993, 995, 1719, 1720, 1723, 2049,
  3659, 4045, 4190, 5060, 5061, 6000, 6566, 6665, 6666, 6667, 6668, 6669, 6679, 6697, 10080,
])
export const browsersRefuse = (port: number): boolean => refused.has(port)

/** A port on loopback that nobody listens on: the one wished for, where it is free. */
export async function freePort(wished = 0): Promise<number> {
  for (const one of [wished, 0, 0, 0]) {
    const port = await bound(one)
    if (port !== null && !browsersRefuse(port)) return port
  }
  throw new Error('No port of 127.0.0.1 is free.')
}
