import type { Folder } from '@nibquill/contract'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Key } from '../kit/BigButton'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Bar } from '../kit/layout'
import { Press } from '../kit/Press'

import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space } from '../kit/theme'
import { t } from './words'

/** A folder to tap: opened from a shelf, or chosen for a piece. */
export function FolderTile({
  folder,
  chosen,
  onPress,
  note,
  shortcut,
  width = 158,
}: {
  folder: Folder
  chosen?: boolean
  onPress: () => void
  note?: string
  /** Keyboard key that chooses it. */
  shortcut?: string | undefined
  width?: number
}) {
  return (
    <Press
      role={chosen === undefined ? 'button' : 'radio'}
      selected={chosen}
      onPress={onPress}
      style={{
        width,
        padding: space.near,
        borderRadius: corners.button,
        backgroundColor: chosen ? colours.aubergineTint : 'transparent',
        borderWidth: 2,
        borderColor: chosen ? colours.aubergine : 'transparent',
      }}
    >
      <FolderDrawing folder={folder} width={width - 20} chosen={chosen} />
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
          <DrawnSymbol name="check" size={22} colour={colours.sheet} />
        </View>
      ) : null}
      <Bar gap="close">
        {shortcut ? <Key name={shortcut} colour={colours.inkSoft} /> : null}
        <Text variant="titleSmall" style={{ flex: 1 }}>
          {folder.name}
        </Text>
      </Bar>
      <Text variant="bodySmall" style={{ color: colours.inkSoft }}>
        {note ?? t('pieces', { count: folder.pieceCount })}
      </Text>
    </Press>
  )
}
