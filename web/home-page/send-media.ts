import { Upload } from 'tus-js-client'
import { ProblemError } from '../api.ts'
import type { MediaKind } from './drafts.ts'

/** What goes with a file: whose it is, and the name under which, sent twice, it is one. */
export interface SentMedia {
  token: string
  id: string
  packId: string
  childId: string
  kind: MediaKind
}
/** Bytes of one piece: a dropped connection loses no more than a few seconds of a slow one. */
const piece = 128 * 1024

/** Sends a file in pieces, going on where an earlier try stopped. @throws ProblemError; status 0 where there is no connection. */
export function sendMedia(file: Blob, of: SentMedia): Promise<void> {
  return new Promise((resolve, reject) => {
    const upload = new Upload(file as File, {
      endpoint: `/api/home/${of.token}/uploads`,
      metadata: { id: of.id, packId: of.packId, childId: of.childId, kind: of.kind },
      chunkSize: piece,
      retryDelays: [500, 2000],
      removeFingerprintOnSuccess: true,
      fingerprint: () => Promise.resolve(`awlbox-${of.id}`),
      onSuccess: () => resolve(),
      onError: (error) => reject(problemOf(error)),
    })
    upload
      .findPreviousUploads()
      .then((before) => {
        if (before[0]) upload.resumeFromPreviousUpload(before[0])
        upload.start()
      })
      .catch(reject)
  })
}
function problemOf(error: Error): ProblemError {
  const response = (error as { originalResponse?: { getStatus: () => number; getBody: () => string } | null })
    .originalResponse
  if (!response || response.getStatus() === 0 || response.getStatus() >= 500)
    return new ProblemError(0, 'No connection', error.message, {})
  let told: { title?: string; detail?: string } = {}
  try {
    told = JSON.parse(response.getBody()) as typeof told
  } catch {
    // Not ours: a proxy's page, say.
  }
  return new ProblemError(response.getStatus(), told.title ?? 'Not taken', told.detail ?? error.message, {})
}
