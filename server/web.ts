import { makeApp } from './app.ts'
import { openServices } from './open-services.ts'
import { readConfig } from './platform/config.ts'
import { log } from './platform/log.ts'
import { onStop } from './platform/on-stop.ts'

const config = readConfig()
const services = await openServices(config)
const server = makeApp(services).listen(config.port, config.host, (error?: Error) => {
  if (error) {
    log.error({ error: error.message }, 'cannot listen')
    process.exit(3)
  }
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
