import { chromium } from 'playwright-core'
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox','--disable-gpu','--use-fake-ui-for-media-stream','--use-fake-device-for-media-stream'] })
const ctx = await browser.newContext({ viewport: { width: 1280, height: 800 }, colorScheme: process.env.DARK ? 'dark' : 'light' })
const page = await ctx.newPage()
page.on('console', (m) => m.type() === 'error' && console.log('console:', m.text().slice(0, 300)))
page.on('pageerror', (e) => console.log('page error:', e.message))
const base = 'http://127.0.0.1:4180'
await ctx.request.post(base + '/api/sign-in', { data: { email: 'marnie@cobblegate.example', password: 'bobbin-parcels' }, headers: { origin: base } })
const shelf = await (await ctx.request.get(base + '/api/shelf')).json()
const lessons = shelf.lessons ?? shelf.classes.flatMap((c) => c.lessons ?? []); if(process.env.DUMP) console.log(JSON.stringify(shelf).slice(0,600))
const steps = await import(process.argv[2])
await steps.default({ page, base, lessons, ctx })
await browser.close()
