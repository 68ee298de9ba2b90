import { spawn } from 'node:child_process'
import fs from 'node:fs'
import path from 'node:path'

/** Everything `./awlbox test` runs, one after another, each in full; ends with a plain count. Names as arguments run only those. */
const root = path.resolve(import.meta.dirname, '..')
const out = path.join(root, 'test-results')
fs.mkdirSync(out, { recursive: true })
let [passed, failed] = [0, 0]

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
  console.log(`\n— ${name}`)
  const code = await run(command, args)
  add(code === 0 ? 1 : 0, code === 0 ? 0 : 1)
}
async function vitest(project: string): Promise<void> {
  console.log(`\n— ${project} tests`)
  const file = path.join(out, `${project}.json`)
  fs.rmSync(file, { force: true })
  await run('npx', [
    '--no-install',
    'vitest',
    'run',
    '--project',
    project,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${file}`,
  ])
  try {
    const r = JSON.parse(fs.readFileSync(file, 'utf8')) as {
      numPassedTests: number
      numFailedTests: number
      numFailedTestSuites: number
    }
    add(r.numPassedTests, r.numFailedTests || (r.numFailedTestSuites ? 1 : 0))
  } catch {
    add(0, 1)
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
    }
    add(r.stats.expected, r.stats.unexpected + r.stats.flaky)
  } catch {
    add(0, 1)
  }
}
const steps: [string, () => Promise<void>][] = [
  ['types', () => check('types', 'npx', ['--no-install', 'tsc', '-p', 'tsconfig.json', '--noEmit'])],
  ['lint', () => check('lint', 'npx', ['--no-install', 'eslint', '.', '--max-warnings', '0'])],
  [
    'boundaries',
    () =>
      check('boundaries', 'npx', [
        '--no-install',
        'depcruise',
        '--config',
        '.dependency-cruiser.cjs',
        'core',
        'server',
        'web',
        'standins',
      ]),
  ],
  ['unit', () => vitest('unit')],
  ['api', () => vitest('api')],
  ['build', () => check('build', 'npx', ['--no-install', 'vite', 'build', 'web'])],
  ['e2e', browser],
]
const wanted = process.argv.slice(2)
for (const [name, step] of steps) if (!wanted.length || wanted.includes(name)) await step()
console.log(`\n${passed} passed, ${failed} failed`)
process.exitCode = failed || !passed ? 1 : 0
