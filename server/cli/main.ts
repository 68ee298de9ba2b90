import { convert } from './convert.ts'
import { count } from './count.ts'
import { listen } from './listen.ts'
import { proof } from './proof.ts'
import { table } from './table.ts'
import { ways } from './ways.ts'
import { BadInput, type Printed } from './printed.ts'

/** The shell's way in: no server, no database. Exit 0 clean, 1 findings or a doubtful result, 2 bad input. */
if (process.env.AWLBOX_FROM) process.chdir(process.env.AWLBOX_FROM)
const [command, ...rest] = process.argv.slice(2)
const json = rest.includes('--json')
const args = rest.filter((a) => a !== '--json')
const commands: Record<string, (args: string[]) => Printed | Promise<Printed>> = {
  proof,
  table,
  listen,
  count,
  ways,
  convert,
}

try {
  const run = commands[command ?? '']
  if (!run)
    throw new BadInput(
      `${command ?? 'nothing'} is not here yet. There are: ${Object.keys(commands).join(', ')}.`,
    )
  const printed = await run(args)
  process.stdout.write(json ? `${JSON.stringify(printed.json, null, 2)}\n` : `${printed.text}\n`)
  process.exitCode = printed.clean ? 0 : 1
} catch (error) {
  process.stderr.write(
    `awlbox ${command ?? ''}: ${error instanceof BadInput ? error.message : `this could not be done: ${error instanceof Error ? error.message.split('\n')[0] : 'unknown'}`}\n`,
  )
  process.exitCode = 2
}
