import { COLOURS, FOLDER_SYMBOLS, type Colour, type FolderSymbol } from '@nibquill/core'
import { useState, type ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Field } from '../kit/Field'
import { FolderDrawing } from '../kit/FolderDrawing'
import { useTargetPx } from '../kit/forPupil'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, pigments } from '../kit/theme'
import { t as kitWords } from '../kit/words'
import { t } from './words'
import { Bar, Stack } from '../kit/layout'

type Look = { name: string; symbol: FolderSymbol; colour: Colour }

/**
 * How a folder looks: its name, a symbol out of many, a colour; drawn as it will stand on the
 * shelf.
 */
export function LookFields({
  look,
  onChange,
  nameLine,
}: {
  look: Look
  onChange: (look: Look) => void
  /** The line of the form that holds its name. */
  nameLine: ReactNode
}) {
  const [wanted, setWanted] = useState('')
  const targetPx = useTargetPx()
  const shown = FOLDER_SYMBOLS.filter((symbol) =>
    kitWords(`symbols.${symbol}`).toLowerCase().includes(wanted.trim().toLowerCase()),
  )
  return (
    <>
      <Bar wrap gap="clear">
        <FolderDrawing folder={look} width={120} />
        <View style={{ flexGrow: 1, minWidth: 200 }}>{nameLine}</View>
      </Bar>
      <Stack gap="close">
        <Text variant="labelMedium" aria-hidden style={{ color: colours.inkSoft }}>
          {t('colour')}
        </Text>
        <Wells colour={look.colour} onChange={(colour) => onChange({ ...look, colour })} />
      </Stack>
      <Field
        label={t('findSymbol')}
        value={wanted}
        onChangeText={setWanted}
        autoCapitalize="none"
      />
      <Bar role="radiogroup" aria-label={t('symbol')} wrap align="stretch" gap="tight">
        {shown.map((symbol) => (
          <Press
            key={symbol}
            role="radio"
            label={kitWords(`symbols.${symbol}`)}
            selected={symbol === look.symbol}
            onPress={() => onChange({ ...look, symbol })}
            style={{
              width: targetPx,
              height: targetPx,
              borderRadius: corners.button,
              alignItems: 'center',
              justifyContent: 'center',
              borderWidth: 2,
              borderColor: symbol === look.symbol ? pigments[look.colour] : 'transparent',
              backgroundColor: symbol === look.symbol ? colours.paper : 'transparent',
            }}
          >
            <DrawnSymbol
              name={symbol}
              size={26}
              colour={symbol === look.symbol ? pigments[look.colour] : colours.inkSoft}
            />
          </Press>
        ))}
      </Bar>
    </>
  )
}

/** The pigments a folder's spine is painted in. */
function Wells({
  colour: chosen,
  onChange,
}: {
  colour: Colour
  onChange: (colour: Colour) => void
}) {
  const targetPx = useTargetPx()
  return (
    <Bar role="radiogroup" aria-label={t('colour')} wrap align="stretch" gap="close">
      {COLOURS.map((colour) => (
        <Press
          key={colour}
          role="radio"
          label={kitWords(`colours.${colour}`)}
          selected={colour === chosen}
          onPress={() => onChange(colour)}
          style={{
            width: targetPx,
            height: targetPx,
            borderRadius: corners.button,
            backgroundColor: pigments[colour],
            alignItems: 'center',
            justifyContent: 'center',
          }}
        >
          {colour === chosen ? <DrawnSymbol name="check" size={24} colour={colours.sheet} /> : null}
        </Press>
      ))}
    </Bar>
  )
}
