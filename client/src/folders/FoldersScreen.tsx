import { router } from 'expo-router'
import { strings as kitWords } from '../kit/strings'
import { Shelf } from './Shelf'
import { strings } from './strings'

/** A teacher's folders: whose they are, how full, and which parents do not see. */
export const FoldersScreen = () => (
  <Shelf
    title={strings.title}
    onOpen={({ id }) => router.push(`/folders/${id}`)}
    note={(folder) =>
      [
        folder.className ?? strings.wholeSchool,
        kitWords.pieces(folder.pieceCount),
        folder.parentsSee ? '' : strings.parentsDoNotSee,
      ]
        .filter(Boolean)
        .join(', ')
    }
  />
)
