import { runCommand } from './run.ts'

/** The shell's way in. */
if (process.env.AWLBOX_FROM) process.chdir(process.env.AWLBOX_FROM)
const { code, out, err } = await runCommand(process.argv.slice(2))
process.stdout.write(out)
process.stderr.write(err)
process.exitCode = code
