import { router, usePathname, type Href } from 'expo-router'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { useHandOverStage, type START } from '../accounts'
import { Gate } from './Gate'
import { useReached } from '../device/network'
import { useWidth } from '../kit/layout'
import { Notice } from '../kit/Notice'
import { Press } from '../kit/Press'

import { DrawnSymbol, type SymbolName } from '../kit/DrawnSymbol'
import { colours, corners, fonts, space, targets } from '../kit/theme'
import { t } from './words'

export type Place = {
  href: Extract<Href, string>
  label: string
  symbol: SymbolName
  count?: number
}
type Props = {
  places: readonly Place[]
  roles: readonly (keyof typeof START)[]
  /** Pupils keep their places at the foot on every screen. */
  foot?: boolean
  /** Out of sight: a screen has all the room. Coming and going, what stands in it stays. */
  away?: boolean
  extra?: React.ReactNode
}

/** A role's places: at the foot on phones and for pupils, on a slim left rail on wide screens. */
export function PlacesLayout({ places, roles, foot = false, away = false, extra }: Props) {
  const { wide } = useWidth()
  const rail = wide && !foot
  // While work is kept for somebody who left, nobody goes on as them.
  const covered = useHandOverStage() !== 'none'
  return (
    <View
      style={{
        flex: 1,
        flexDirection: rail ? 'row' : 'column-reverse',
        backgroundColor: colours.paper,
      }}
    >
      {away ? null : <Navigation places={places} rail={rail} covered={covered} extra={extra} />}
      <View role="main" style={{ flex: 1 }}>
        {foot ? null : <FromBefore />}
        <Gate roles={roles} />
      </View>
    </View>
  )
}

function Navigation({
  places,
  rail,
  covered,
  extra,
}: Pick<Props, 'places' | 'extra'> & { rail: boolean; covered: boolean }) {
  const path = usePathname()
  return (
    <View
      role="navigation"
      style={
        rail
          ? {
              display: covered ? 'none' : 'flex',
              width: 88,
              backgroundColor: colours.desk,
              paddingVertical: space.clear,
              gap: space.near,
              alignItems: 'center',
            }
          : {
              display: covered ? 'none' : 'flex',
              backgroundColor: colours.sheet,
              borderTopWidth: 1,
              borderTopColor: colours.rule,
              flexDirection: 'row',
              justifyContent: 'center',
              paddingHorizontal: space.tight,
            }
      }
    >
      {rail ? <Monogram /> : null}
      {places.map((place) => (
        <PlaceLink
          key={place.href}
          place={place}
          chosen={path === place.href || path.startsWith(`${place.href}/`)}
          rail={rail}
        />
      ))}
      {rail && extra ? <View style={{ marginTop: 'auto' }}>{extra}</View> : null}
    </View>
  )
}

/** A pupil's own screens say more of it: what they make goes on. */
function FromBefore() {
  const reached = useReached()
  if (reached) return null
  return (
    <View role="status" style={{ padding: space.near }}>
      <Notice tone="attention" symbol="no-network">
        {t('fromBefore')}
      </Notice>
    </View>
  )
}

function PlaceLink({ place, chosen, rail }: { place: Place; chosen: boolean; rail: boolean }) {
  const colour = chosen ? colours.aubergine : colours.inkSoft
  return (
    <Press
      role="link"
      onPress={() => router.navigate(place.href)}
      style={{
        minHeight: targets.pupil + 4,
        minWidth: 68,
        maxWidth: rail ? undefined : 200,
        flexGrow: rail ? 0 : 1,
        flexBasis: rail ? 'auto' : 0,
        alignItems: 'center',
        justifyContent: 'center',
        paddingVertical: rail ? 10 : 5,
        borderRadius: corners.button,
        backgroundColor: rail && chosen ? colours.sheet : 'transparent',
      }}
    >
      <View>
        <DrawnSymbol name={place.symbol} size={26} colour={colour} />
        {place.count ? (
          <View
            style={{
              position: 'absolute',
              top: -7,
              left: 15,
              backgroundColor: colours.ochreText,
              borderRadius: 10,
              minWidth: 20,
              paddingHorizontal: 5,
              alignItems: 'center',
            }}
          >
            <Text
              style={{
                color: colours.sheet,
                fontFamily: fonts.strong,
                fontSize: 13,
                lineHeight: 19,
              }}
            >
              {place.count > 99 ? '99+' : place.count}
            </Text>
          </View>
        ) : null}
      </View>
      <Text variant="labelSmall" style={{ color: colour }}>
        {place.label}
      </Text>
      <View
        style={{
          height: 3,
          width: 30,
          borderRadius: 2,
          backgroundColor: chosen && !rail ? colours.aubergine : 'transparent',
        }}
      />
    </Press>
  )
}

function Monogram() {
  return (
    <Text
      aria-hidden
      style={{
        fontFamily: fonts.title,
        fontSize: 30,
        lineHeight: 40,
        color: colours.aubergine,
        marginBottom: space.near,
      }}
    >
      N<Text style={{ fontFamily: fonts.title, fontSize: 30, color: colours.ochreText }}>q</Text>
    </Text>
  )
}
