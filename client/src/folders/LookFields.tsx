import { COLOURS, FOLDER_SYMBOLS, type Colour, type FolderSymbol } from '@nibquill/core'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Field } from '../kit/Field'
import { FolderDrawing } from '../kit/FolderDrawing'
import { Row } from '../kit/form'
import { Press } from '../kit/Press'
import { Symbol } from '../kit/Symbol'
import { colours, corners, pigments, targets } from '../kit/theme'
import { strings } from './strings'

type Look = { name: string; symbol: FolderSymbol; colour: Colour }

/**
 * How a folder looks: its name, a symbol out of many, a colour; drawn as it will stand on the
 * shelf.
 */
export function LookFields({
  look,
  onChange,
  nameFault,
}: {
  look: Look
  onChange: (look: Look) => void
  nameFault: string | undefined
}) {
  const [wanted, setWanted] = useState('')
  const shown = FOLDER_SYMBOLS.filter((symbol) => symbol.includes(wanted.trim().toLowerCase()))
  return (
    <>
      <Row gap={18}>
        <FolderDrawing folder={look} width={120} />
        <View style={{ flexGrow: 1, minWidth: 200 }}>
          <Field
            label={strings.name}
            value={look.name}
            onChangeText={(name) => onChange({ ...look, name })}
            error={nameFault}
          />
        </View>
      </Row>
      <View style={{ gap: 6 }}>
        <Text variant="labelMedium" aria-hidden style={{ color: colours.inkSoft }}>
          {strings.colour}
        </Text>
        <View
          role="radiogroup"
          aria-label={strings.colour}
          style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 6 }}
        >
          {COLOURS.map((colour) => (
            <Press
              key={colour}
              role="radio"
              label={colour}
              selected={colour === look.colour}
              onPress={() => onChange({ ...look, colour })}
              style={{
                width: targets.adult,
                height: targets.adult,
                borderRadius: corners.button,
                backgroundColor: pigments[colour],
                alignItems: 'center',
                justifyContent: 'center',
              }}
            >
              {colour === look.colour ? (
                <Symbol name="check" size={24} colour={colours.sheet} />
              ) : null}
            </Press>
          ))}
        </View>
      </View>
      <Field
        label={strings.findSymbol}
        value={wanted}
        onChangeText={setWanted}
        autoCapitalize="none"
      />
      <View
        role="radiogroup"
        aria-label={strings.symbol}
        style={{ flexDirection: 'row', flexWrap: 'wrap', gap: 4 }}
      >
        {shown.map((symbol) => (
          <Press
            key={symbol}
            role="radio"
            label={symbol}
            selected={symbol === look.symbol}
            onPress={() => onChange({ ...look, symbol })}
            style={{
              width: targets.adult,
              height: targets.adult,
              borderRadius: corners.button,
              alignItems: 'center',
              justifyContent: 'center',
              borderWidth: 2,
              borderColor: symbol === look.symbol ? pigments[look.colour] : 'transparent',
              backgroundColor: symbol === look.symbol ? colours.paper : 'transparent',
            }}
          >
            <Symbol
              name={symbol}
              size={26}
              colour={symbol === look.symbol ? pigments[look.colour] : colours.inkSoft}
            />
          </Press>
        ))}
      </View>
    </>
  )
}
