import { convert } from './convert.ts'
import { diagnose } from './diagnose.ts'
import { count } from './count.ts'
import { listen } from './listen.ts'
import { print } from './print.ts'
import { proof } from './proof.ts'
import { table } from './table.ts'
import { ways } from './ways.ts'
import { BadInput, type Printed } from './printed.ts'

const commands: Record<string, (args: string[]) => Printed | Promise<Printed>> = {
  proof,
  table,
  listen,
  count,
  ways,
  diagnose,
  print,
  convert,
}

/** What a command says in the shell; `code` 0 clean, 1 findings or a doubtful result, 2 bad input. */
export interface Said {
  code: 0 | 1 | 2
  out: string
  err: string
}
/** Runs one command with its words as the shell gave them: no server, no database; files are named from where the process stands. */
export async function runCommand(words: readonly string[]): Promise<Said> {
  const [command, ...rest] = words
  const json = rest.includes('--json')
  const args = rest.filter((a) => a !== '--json')
  try {
    const run = commands[command ?? '']
    if (!run)
      throw new BadInput(
        `${command ?? 'nothing'} is not here yet. There are: ${Object.keys(commands).join(', ')}.`,
      )
    const printed = await run(args)
    return {
      code: printed.clean ? 0 : 1,
      out: json ? `${JSON.stringify(printed.json, null, 2)}\n` : `${printed.text}\n`,
      err: '',
    }
  } catch (error) {
    const why =
      error instanceof BadInput
        ? error.message
        : `this could not be done: ${error instanceof Error ? error.message.split('\n')[0] : 'unknown'}`
    return { code: 2, out: '', err: `awlbox ${command ?? ''}: ${why}\n` }
  }
}
