import http from 'node:http'
import { makeApp } from './app.ts'
import { openServices } from './open-services.ts'
import { readConfig } from './platform/config.ts'
import { log } from './platform/log.ts'
import { onStop } from './platform/on-stop.ts'
import { secureServer } from './platform/tls.ts'

const config = readConfig()
const services = await openServices(config)
const app = makeApp(services)
const server = config.tls ? secureServer(config.tls, app).server : http.createServer(app)
server.once('error', (error) => {
  log.error({ error: error.message }, 'cannot listen')
  process.exit(3)
})
server.listen(config.port, config.host, () => {
  log.info({ port: config.port }, 'web ready')
  process.send?.('ready')
})
// Whoever started it sees that it turns: one that does not for some seconds is started anew.
setInterval(() => process.send?.('turning'), 1000).unref()
// Longer than a proxy or a browser keeps an idle connection, so that none is closed under a request.
server.keepAliveTimeout = 65_000
onStop(async () => {
  server.close()
  server.closeAllConnections()
  await services.close()
})
