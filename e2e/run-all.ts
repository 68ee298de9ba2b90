import { spawn } from 'node:child_process'
import fs from 'node:fs'
import path from 'node:path'

/** Everything `./awlbox test` runs, one after another, each in full; ends with a plain count. Names as arguments run only those. */
const root = path.resolve(import.meta.dirname, '..')
const out = path.join(root, 'test-results')
fs.mkdirSync(out, { recursive: true })
let [passed, failed] = [0, 0]
/** What failed, named once more at the end: a long run's first lines are often cut off where it is read. */
const wrong: string[] = []

function run(command: string, args: string[], env: Record<string, string> = {}): Promise<number> {
  return new Promise((resolve) => {
    const child = spawn(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } })
    child.on('exit', (code) => resolve(code ?? 1))
  })
}
function add(p: number, f: number): void {
  passed += p
  failed += f
}
async function check(name: string, command: string, args: string[]): Promise<void> {
  const code = await run(command, args)
  console.log(`— ${name}: ${code === 0 ? 'well' : `ended with ${code}`}`)
  add(code === 0 ? 1 : 0, code === 0 ? 0 : 1)
  if (code !== 0) wrong.push(name)
}
interface Slow {
  name: string
  seconds: number
}
const slow: Slow[] = []
interface VitestReport {
  numPassedTests: number
  numFailedTests: number
  numFailedTestSuites: number
  testResults: {
    name: string
    status: string
    message: string
    assertionResults: {
      fullName: string
      status: string
      duration?: number | null
      failureMessages?: string[] | null
    }[]
  }[]
}
const firstLines = (text: string): string => text.split('\n').slice(0, 6).join('\n    ')
const lastLines = (file: string): string => {
  try {
    return fs.readFileSync(file, 'utf8').trimEnd().split('\n').slice(-12).join('\n    ')
  } catch {
    return 'nothing'
  }
}
/** Tests of some projects; `beside`: in one worker that gives way to what runs beside it. */
async function vitest(projects: string[], beside = false): Promise<void> {
  console.log(`\n— ${projects.join(' and ')} tests`)
  const file = path.join(out, `${projects.join('-')}.json`)
  fs.rmSync(file, { force: true })
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${file}`]
  const words = ['--no-install', 'vitest', 'run', ...projects.flatMap((p) => ['--project', p]), ...reporters]
  if (beside) await run('nice', ['-n', '10', 'npx', ...words, '--maxWorkers=1'])
  else await run('npx', words)
  try {
    const r = JSON.parse(fs.readFileSync(file, 'utf8')) as VitestReport
    add(r.numPassedTests, r.numFailedTests || (r.numFailedTestSuites ? 1 : 0))
    for (const f of r.testResults) {
      for (const t of f.assertionResults) {
        slow.push({ name: t.fullName, seconds: (t.duration ?? 0) / 1000 })
        if (t.status === 'failed')
          wrong.push(`${t.fullName}\n    ${firstLines(t.failureMessages?.[0] ?? '')}`)
      }
      if (f.status === 'failed' && f.message)
        wrong.push(`${path.relative(root, f.name)}\n    ${firstLines(f.message)}`)
    }
  } catch (error) {
    console.error(`No report of the ${projects.join(' and ')} tests: ${String(error)}`)
    add(0, 1)
    wrong.push(String(error))
  }
}
async function browser(): Promise<void> {
  console.log('\n— browser tests')
  const file = path.join(out, 'e2e.json')
  fs.rmSync(file, { force: true })
  await run('npx', ['--no-install', 'playwright', 'test', '--config', 'e2e/playwright.config.ts'], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: file,
  })
  try {
    const r = JSON.parse(fs.readFileSync(file, 'utf8')) as {
      stats: { expected: number; unexpected: number; flaky: number }
      suites: {
        specs: {
          title: string
          ok: boolean
          tests: { results: { duration: number; error?: { message?: string } }[] }[]
        }[]
      }[]
    }
    add(r.stats.expected, r.stats.unexpected + r.stats.flaky)
    if (r.stats.unexpected + r.stats.flaky)
      wrong.push(`The last that Awlbox itself said:\n    ${lastLines(path.join(out, 'app.log'))}`)
    for (const spec of r.suites.flatMap((x) => x.specs)) {
      if (!spec.ok)
        wrong.push(
          `${spec.title}\n    ${firstLines(spec.tests.flatMap((t) => t.results).at(-1)?.error?.message ?? '')}`,
        )
      for (const t of spec.tests.flatMap((x) => x.results))
        slow.push({ name: spec.title, seconds: t.duration / 1000 })
    }
  } catch (error) {
    console.error(`No report of the browser tests: ${String(error)}`)
    add(0, 1)
    wrong.push(String(error))
  }
}
const npx = (...args: string[]): [string, string[]] => ['npx', ['--no-install', ...args]]
/** The compiled compiler checks in a fifth of the time; lint still needs the one written in JavaScript, whose command has the same name. */
const types = (project: string): [string, string[]] => [
  process.execPath,
  ['node_modules/typescript-7/bin/tsc', '-p', project, '--noEmit'],
]
const folders = ['core', 'server', 'web', 'standins', 'e2e', 'bench', 'docs']
const still: [string, [string, string[]]][] = [
  ['types', types('tsconfig.json')],
  ['types of core, which knows no browser and no Node', types('core/tsconfig.json')],
  ['types of web, which knows no Node', types('web/tsconfig.json')],
  ['types of server, which knows no browser', types('server/tsconfig.json')],
  ['lint', npx('eslint', ...folders, '--max-warnings', '0')],
  ['lint with types', npx('oxlint', '--type-aware', ...folders)],
  ['boundaries', npx('depcruise', '--config', '.dependency-cruiser.cjs', ...folders)],
  ['format', npx('prettier', '--check', '.', '--log-level', 'warn')],
  ['unused', npx('knip', '--no-progress')],
]
/** What is checked without running anything: whoever is free takes the next. */
const unchecked = [...still]
async function checks(): Promise<void> {
  for (let next = unchecked.shift(); next; next = unchecked.shift()) await check(next[0], ...next[1])
}
/** Pages and programs as they ship: what the tests start from then on is that, and not compiled each time it starts. */
async function build(): Promise<void> {
  await check('build of the pages', ...npx('vite', 'build', 'web'))
  await check('build of the programs', process.execPath, ['server/build.mjs'])
  process.env.AWLBOX_BUILT = '1'
}
/** The long trials, of which every run makes a short sample: figures for docs/reliability.md. */
const trials = (): Promise<void> =>
  check('trials', 'env', [
    ...['AWLBOX_TRIALS=40', 'AWLBOX_FUZZ=120', 'AWLBOX_HOMES=300', 'AWLBOX_WITHIN=120'],
    ...['npx', '--no-install', 'vitest', 'run', '--project', 'api', '--disable-console-intercept'],
    ...['server/trials', 'server/hostile', 'server/access'],
  ])
const steps: [string, () => Promise<void>][] = [
  ['trials', trials],
  ...still.map(([name, command]): [string, () => Promise<void>] => [name, () => check(name, ...command)]),
  ['unit', () => vitest(['unit'])],
  ['api', () => vitest(['api'])],
  ['films', () => vitest(['films'])],
  ['build', build],
  ['e2e', browser],
]
/**
 * All of it. The browser mostly waits for what it looks at, and films are mostly made by other programs: each fills the
 * time the other leaves, and then what is checked standing still.
 */
const whole: typeof steps = [
  ['build', build],
  ['tests', () => vitest(['unit', 'api'])],
  [
    'browser, films and checks',
    async () => void (await Promise.all([browser().then(checks), vitest(['films'], true).then(checks)])),
  ],
]
const wanted = process.argv.slice(2)
const started = Date.now()
for (const [name, step] of wanted.length ? [...steps, ...whole.slice(1, 2)] : whole)
  if (!wanted.length || wanted.includes(name)) {
    const from = Date.now()
    await step()
    console.log(`  (${name}: ${Math.round((Date.now() - from) / 1000)} s)`)
  }
console.log('\nThe ten slowest:')
for (const t of slow.sort((a, b) => b.seconds - a.seconds).slice(0, 10))
  console.log(`${t.seconds.toFixed(0).padStart(5)} s  ${t.name}`)
console.log(`All: ${Math.round((Date.now() - started) / 1000)} s`)
if (wrong.length) console.log(`\nFailed:\n${wrong.map((w) => `  ${w}`).join('\n')}`)
console.log(`\n${passed} passed, ${failed} failed`)
process.exitCode = failed || !passed ? 1 : 0
