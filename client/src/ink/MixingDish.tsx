import { colourOf, isFaint, MOST_DROPS, WELL_NAMES, type Ink } from '@nibquill/core/ink/inks'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import Svg, { Circle, Ellipse, Path } from 'react-native-svg'
import { BigButton } from '../kit/BigButton'
import { Bar, Stack } from '../kit/layout'
import { Listen } from '../kit/Listen'
import { Overlay } from '../kit/Overlay'
import { Press } from '../kit/Press'
import { colours, space, targets } from '../kit/theme'
import { Beside, InkWell } from './InkWell'
import { fullNameOf } from './look'
import { t } from './words'

/** What lies in the dish stays there while one draws. */
let lastDrops: Ink = []

/**
 * The mixing dish: drops from the wells, and what they make together.
 * @param mixed - Inks that were mixed for this drawing, to be taken again.
 */
export function MixingDish({ mixed, onInk }: { mixed: readonly Ink[]; onInk: (ink: Ink) => void }) {
  const [open, setOpen] = useState(false)
  const [drops, setDrops] = useState(lastDrops)
  const put = (now: Ink) => setDrops((lastDrops = now))
  const use = (ink: Ink) => {
    onInk(ink)
    setOpen(false)
  }
  return (
    <>
      <Beside words={t('dishWord')} label={t('dish')} onPress={() => setOpen(true)}>
        <Svg width={46} height={46} viewBox="0 0 46 46" aria-hidden>
          <Ellipse cx={23} cy={25} rx={21} ry={16} fill="#EFE6D2" />
          <Ellipse
            cx={23}
            cy={24}
            rx={17}
            ry={12}
            fill={drops.length > 0 ? colourOf(drops) : '#FFFFFF'}
          />
          {drops.length === 0 ? (
            <>
              <Circle cx={17} cy={24} r={6} fill="#2F5E8C" />
              <Circle cx={29} cy={24} r={6} fill="#E3C04C" />
            </>
          ) : null}
        </Svg>
      </Beside>
      <Overlay visible={open} title={t('dish')} width={560} onClose={() => setOpen(false)}>
        <Mixing drops={drops} mixed={mixed} onDrops={put} onUse={use} />
      </Overlay>
    </>
  )
}

function Mixing({
  drops,
  mixed,
  onDrops: put,
  onUse: use,
}: {
  drops: Ink
  mixed: readonly Ink[]
  onDrops: (drops: Ink) => void
  onUse: (ink: Ink) => void
}) {
  return (
    <Stack gap="clear" style={{ padding: space.far, paddingTop: 0 }}>
      <Bar>
        <Text variant="bodyLarge" style={{ flex: 1 }}>
          {drops.length >= MOST_DROPS ? t('dishFull') : t('dishHelp')}
        </Text>
        <Listen text={t('dishHelp')} />
      </Bar>
      <InDish drops={drops} onTake={(i) => put(drops.filter((_, at) => at !== i))} />
      <Bar
        wrap
        gap="tight"
        role="group"
        aria-label={t('wells')}
        style={{ justifyContent: 'center' }}
      >
        {WELL_NAMES.map((well) => (
          <InkWell
            key={well}
            ink={[well]}
            held={false}
            label={t('addDrop', { ink: fullNameOf([well]) })}
            onPress={() => drops.length < MOST_DROPS && put([...drops, well])}
          />
        ))}
      </Bar>
      {mixed.length > 0 ? (
        <Bar wrap gap="tight" style={{ justifyContent: 'center' }}>
          {mixed.map((ink) => (
            <InkWell key={ink.join()} ink={ink} held={false} onPress={() => use(ink)} />
          ))}
        </Bar>
      ) : null}
      <Bar wrap>
        <BigButton
          grow
          label={t('useInk')}
          symbol="check"
          disabled={drops.length === 0}
          onPress={() => use(drops)}
        />
        <BigButton
          grow
          tone="quiet"
          label={t('emptyDish')}
          disabled={drops.length === 0}
          onPress={() => put([])}
        />
      </Bar>
    </Stack>
  )
}

/** The dish from above, and the drops in it, each to be taken out. */
function InDish({ drops, onTake }: { drops: Ink; onTake: (i: number) => void }) {
  return (
    <Bar gap="apart" wrap style={{ minHeight: 128, justifyContent: 'center' }}>
      <View role="img" aria-label={drops.length > 0 ? fullNameOf(drops) : t('dishEmpty')}>
        <Svg width={170} height={120} viewBox="0 0 170 120" aria-hidden>
          <Ellipse
            cx={85}
            cy={62}
            rx={82}
            ry={55}
            fill={colours.desk}
            stroke={colours.inkSoft}
            strokeWidth={2}
          />
          <Ellipse
            cx={85}
            cy={58}
            rx={68}
            ry={43}
            fill={drops.length > 0 ? colourOf(drops) : colours.sheet}
            stroke={colours.rule}
            strokeWidth={2}
          />
          {drops.length > 0 ? (
            <Path
              d="M45 45 q20 -20 50 -18"
              stroke="#FFFFFF"
              strokeWidth={5}
              opacity={0.5}
              fill="none"
              strokeLinecap="round"
            />
          ) : null}
        </Svg>
      </View>
      <Bar wrap gap="tight" style={{ flex: 1, minWidth: 180 }}>
        {drops.map((well, i) => (
          <Press
            key={i}
            label={t('takeDrop', { ink: t(`inks.${well}`) })}
            onPress={() => onTake(i)}
            style={{
              width: targets.pupil,
              height: targets.pupil,
              alignItems: 'center',
              justifyContent: 'center',
            }}
          >
            <Svg width={36} height={44} viewBox="0 0 36 44" aria-hidden>
              <Path
                d="M18 3 q14 18 14 25 a14 14 0 0 1 -28 0 q0 -7 14 -25 z"
                fill={colourOf([well])}
                stroke={colours.inkSoft}
                strokeWidth={1.5}
              />
            </Svg>
          </Press>
        ))}
        {drops.length > 1 && isFaint(drops, 0) ? (
          <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
            {t('faint')}
          </Text>
        ) : null}
      </Bar>
    </Bar>
  )
}
