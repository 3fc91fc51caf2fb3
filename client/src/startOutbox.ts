import type { QueryClient } from '@tanstack/react-query'
import { keepFirst } from './accounts/handOver'
import { alsoForget } from './accounts/session'
import { noteSignedOut } from './api/queryClient'
import { forgetDrawings } from './ink/opened'
import { letAllGo } from './media/filesHere'
import { Outbox } from './outbox/outbox'
import { OutboxStore } from './outbox/store'
import { keepPiece, pieceQuery } from './pieces/piecesQueries'
import { forgetTakenOut } from './pieces/shownPiece'

/** Puts the tablet's one outbox together: what it brings to school is shown from then on. */
export function startOutbox(queries: QueryClient): Outbox {
  const outbox = new Outbox(new OutboxStore(), {
    onPiece: (piece) => {
      // What was asked before it changed must not be shown after.
      void queries.cancelQueries({ queryKey: pieceQuery(piece.id).queryKey })
      keepPiece(queries, piece)
    },
    onBinned: () => {
      for (const capability of ['pieces', 'tasks'])
        void queries.invalidateQueries({ queryKey: [capability] })
    },
    onFailed: noteSignedOut,
  })
  // Before the tablet goes to somebody else everything is kept; then nothing of it stays in memory.
  keepFirst(() => outbox.settle())
  alsoForget(() => {
    outbox.clear()
    letAllGo()
    forgetTakenOut()
    forgetDrawings()
  })
  return outbox
}
