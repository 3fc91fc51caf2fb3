import type { Folder } from '@nibquill/contract'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Press } from '../kit/Press'
import { strings } from '../kit/strings'
import { Symbol } from '../kit/Symbol'
import { colours, corners } from '../kit/theme'

/** A folder to tap: opened from a shelf, or chosen for a piece. */
export function FolderTile({
  folder,
  chosen,
  onPress,
  note,
}: {
  folder: Folder
  chosen?: boolean
  onPress: () => void
  note?: string
}) {
  return (
    <Press
      role={chosen === undefined ? 'button' : 'radio'}
      selected={chosen}
      onPress={onPress}
      style={{
        width: 158,
        padding: 8,
        borderRadius: corners.button,
        backgroundColor: chosen ? colours.aubergineTint : 'transparent',
        borderWidth: 2,
        borderColor: chosen ? colours.aubergine : 'transparent',
      }}
    >
      <FolderDrawing folder={folder} width={138} chosen={chosen} />
      {chosen ? (
        <View
          style={{
            position: 'absolute',
            top: 4,
            right: 4,
            width: 34,
            height: 34,
            borderRadius: 34,
            backgroundColor: colours.aubergine,
            alignItems: 'center',
            justifyContent: 'center',
          }}
        >
          <Symbol name="check" size={22} colour={colours.sheet} />
        </View>
      ) : null}
      <Text variant="titleSmall">{folder.name}</Text>
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {note ?? strings.pieces(folder.pieceCount)}
      </Text>
    </Press>
  )
}
