import { z } from 'zod'

/** What a backup says of itself; written last, so that one without it is no backup. */
export const BackupManifest = z.object({
  format: z.literal('awlbox-backup'),
  version: z.literal(1),
  made: z.iso.datetime({ offset: true }),
  /** Changes of the database's form that had been made: an older Awlbox cannot read what a newer one has written. */
  migrations: z.number().int().min(0),
  /** Rows of each table. */
  rows: z.record(z.string(), z.number().int().min(0)),
  dump: z.object({ sha256: z.string().regex(/^[0-9a-f]{64}$/), size: z.number().int() }),
  /** Files named in it, by the SHA-256 of their content. */
  blobs: z.array(z.object({ sha256: z.string().regex(/^[0-9a-f]{64}$/), size: z.number().int() })),
})
export type BackupManifest = z.infer<typeof BackupManifest>
