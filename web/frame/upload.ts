import { Upload } from 'tus-js-client'
import { waits } from '../saving/retrier.ts'

export interface UploadState {
  name: string
  share: number
  problem: string | null
  stop: () => void
}

/** Sends a film in resumable parts and tells which take it became, or that the lesson had this very file; a lost connection goes on where it stopped, also after the page was closed. */
export function uploadTake(
  file: File,
  meta: { lessonId: string; segmentId: string; source: 'recorded' | 'uploaded' },
  tell: (s: UploadState | null) => void,
): Promise<{ takeId: string; known: boolean }> {
  return new Promise((resolve, reject) => {
    const upload = new Upload(file, {
      endpoint: '/api/uploads',
      chunkSize: 8 * 1024 * 1024,
      retryDelays: [0, ...waits],
      removeFingerprintOnSuccess: true,
      metadata: { filename: file.name, ...meta },
      onShouldRetry: (error) => {
        const status = error.originalResponse?.getStatus() ?? 0
        return status === 0 || status === 423 || status === 502 || status === 503
      },
      onProgress: (sent, total) =>
        tell({ name: file.name, share: total ? sent / total : 0, problem: null, stop }),
      onSuccess: ({ lastResponse }) => {
        // All bytes are there; only a take's id says that it is one.
        const takeId = lastResponse.getHeader('Awlbox-Take')
        if (!takeId) {
          stopped(
            'It arrived, but it is not a take yet. It is kept: choose the same file again, and it is made one.',
          )
          return
        }
        tell(null)
        resolve({ takeId, known: lastResponse.getHeader('Awlbox-Known') === '1' })
      },
      onError: (error) => {
        const body = 'originalResponse' in error ? (error.originalResponse?.getBody() ?? '') : ''
        let words =
          'The upload stopped. The part already sent is kept; choose the same file again and it goes on from there.'
        try {
          words = (JSON.parse(body) as { detail?: string }).detail ?? words
        } catch {
          // No words from the server: ours stand.
        }
        stopped(words)
      },
    })
    const stopped = (words: string) => {
      tell({ name: file.name, share: 0, problem: words, stop })
      reject(new Error(words))
    }
    const stop = () => {
      void upload.abort().then(() => {
        tell(null)
        reject(
          new Error(
            'Stopped. The part already sent is kept for three days; choose the same file again and it goes on from there.',
          ),
        )
      })
    }
    void upload.findPreviousUploads().then((before) => {
      if (before[0]) upload.resumeFromPreviousUpload(before[0])
      upload.start()
    })
  })
}
