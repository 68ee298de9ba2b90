import pino from 'pino'

export const log = pino({ level: process.env.AWLBOX_LOG ?? 'info', base: null, redact: ['req.headers.cookie'] })
