import { existsSync } from 'node:fs'
import { type ChildProcess, spawn, type SpawnOptions } from 'node:child_process'

const setpriv = '/usr/bin/setpriv'
const binds = process.platform === 'linux' && existsSync(setpriv)
/** Starts a program that ends when this process does, however that ends: a killed worker leaves nobody at work. */
export const startBound = (tool: string, args: readonly string[], options: SpawnOptions): ChildProcess =>
  binds
    ? spawn(setpriv, ['--pdeathsig', 'KILL', '--', tool, ...args], options)
    : spawn(tool, [...args], options)
/** How setpriv says that there is no such program. */
const isMissing = (code: number | null, stderr: string): boolean =>
  binds && code === 127 && /failed to execute/.test(stderr)

export interface RunOptions {
  signal?: AbortSignal
  /** Called with each line of standard output. */
  onLine?: (line: string) => void
  /** Milliseconds after which the program is ended. */
  limit?: number
  input?: Buffer
  /** Settings of the program, beside this process's own. */
  env?: Readonly<Record<string, string>>
}
export class ToolError extends Error {
  constructor(
    readonly tool: string,
    readonly code: number | null,
    readonly stderr: string,
  ) {
    super(`${tool} ended with ${code}: ${stderr.slice(-600)}`)
    this.name = 'ToolError'
  }
}

/** Runs a program without a shell and gives its standard output. @throws ToolError when it fails or runs past its limit. */
export function run(
  tool: string,
  args: readonly string[],
  options: RunOptions = {},
): Promise<{ stdout: string; stderr: string }> {
  return new Promise((resolve, reject) => {
    const child = startBound(tool, args, {
      stdio: ['pipe', 'pipe', 'pipe'],
      ...(options.env ? { env: { ...process.env, ...options.env } } : {}),
      ...(options.signal ? { signal: options.signal } : {}),
      ...(options.limit ? { timeout: options.limit, killSignal: 'SIGKILL' as const } : {}),
    })
    let [stdout, stderr, rest] = ['', '', '']
    child.stdout!.setEncoding('utf8').on('data', (text: string) => {
      stdout += text
      if (!options.onLine) return
      const lines = (rest + text).split('\n')
      rest = lines.pop() ?? ''
      lines.forEach(options.onLine)
    })
    child.stderr!.setEncoding('utf8').on('data', (text: string) => {
      stderr = (stderr + text).slice(-60_000)
    })
    child.on('error', reject)
    child.on('close', (code) =>
      code === 0
        ? resolve({ stdout, stderr })
        : reject(
            isMissing(code, stderr)
              ? Object.assign(new Error(`There is no ${tool} here`), { code: 'ENOENT' })
              : new ToolError(tool, code, stderr),
          ),
    )
    child.stdin!.on('error', () => undefined)
    child.stdin!.end(options.input)
  })
}
