import { z } from 'zod'

export const RemoteAct = z.enum(['next', 'back', 'film', 'stop', 'pause', 'slip', 'where'])
export type RemoteAct = z.infer<typeof RemoteAct>
export const PrompterState = z.enum(['ready', 'filming', 'paused', 'closed'])
export type PrompterState = z.infer<typeof PrompterState>
/** Where a prompter is, for its remote: `line` of `lines` from 0, equal to it at the end of the segment. */
export const PrompterPlace = z.object({
  to: z.literal('remote'),
  segmentId: z.string().max(40),
  line: z.number().int().min(0).max(400),
  lines: z.number().int().min(0).max(400),
  text: z.string().max(600),
  verb: z.string().max(20),
  next: z.string().max(600),
  state: PrompterState,
})
export type PrompterPlace = z.infer<typeof PrompterPlace>

/** What a remote asks of its prompter, and what a prompter tells its remote. */
export const PrompterMessage = z.discriminatedUnion('to', [
  z.object({ to: z.literal('prompter'), act: RemoteAct }),
  PrompterPlace,
])
export type PrompterMessage = z.infer<typeof PrompterMessage>
