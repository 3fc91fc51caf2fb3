import { NIB_WIDTHS } from '@nibquill/core/ink/document'
import { View } from 'react-native'
import Svg, { Circle, Path } from 'react-native-svg'
import { Bar } from '../kit/layout'
import { Press } from '../kit/Press'
import { colours, corners, targets } from '../kit/theme'
import { RUBBERS, type Hold } from './hold'
import { t } from './words'

type Props = { hold: Hold; onHold: (change: Partial<Hold>) => void }

/** What is to be said of the tool in hand: how thick, line or circle, how large. */
export function HoldMore({ hold, onHold }: Props) {
  if (hold.tool === 'patch') return null
  if (hold.tool === 'rubber')
    return (
      <Row label={t('rubbers')}>
        {RUBBERS.map((_, i) => (
          <One
            key={i}
            label={t('rubberSize', { name: `n${i}` })}
            chosen={hold.rubber === i}
            onPress={() => onHold({ rubber: i })}
          >
            <Circle
              cx={22}
              cy={22}
              r={7 + 5 * i}
              fill="#E3A9A3"
              stroke={colours.ink}
              strokeWidth={2}
            />
          </One>
        ))}
      </Row>
    )
  return (
    <>
      {hold.tool === 'ruler' ? (
        <Row label={t('ruled')}>
          {(['line', 'circle'] as const).map((shape) => (
            <One
              key={shape}
              label={t(shape)}
              chosen={hold.ruled === shape}
              onPress={() => onHold({ ruled: shape })}
            >
              {shape === 'line' ? (
                <Path d="M7 36 L37 8" stroke={colours.ink} strokeWidth={4} strokeLinecap="round" />
              ) : (
                <Circle cx={22} cy={22} r={14} fill="none" stroke={colours.ink} strokeWidth={4} />
              )}
            </One>
          ))}
        </Row>
      ) : null}
      <Row label={t('widths')}>
        {NIB_WIDTHS.map((width, i) => (
          <One
            key={width}
            narrow={hold.tool === 'ruler'}
            label={t('width', { name: `n${i}` })}
            chosen={hold.nib === i}
            onPress={() => onHold({ nib: i })}
          >
            <Path
              d="M8 30 q8 -22 15 -8 t14 -8"
              fill="none"
              stroke={colours.ink}
              strokeWidth={[1.2, 3, 5.5, 9, 15][i]}
              strokeLinecap="round"
            />
          </One>
        ))}
      </Row>
    </>
  )
}

const Row = ({ label, children }: { label: string; children: React.ReactNode }) => (
  <Bar role="radiogroup" aria-label={label} gap="none">
    {children}
  </Bar>
)

function One({
  label,
  chosen,
  narrow = false,
  onPress,
  children,
}: {
  label: string
  chosen: boolean
  /** Where seven stand in one row. */
  narrow?: boolean
  onPress: () => void
  children: React.ReactNode
}) {
  return (
    <Press
      label={label}
      role="radio"
      selected={chosen}
      onPress={onPress}
      style={{
        width: narrow ? 48 : targets.pupil,
        height: targets.pupil,
        alignItems: 'center',
        justifyContent: 'center',
        borderRadius: corners.button,
        borderWidth: 3,
        borderColor: chosen ? colours.aubergine : 'transparent',
        backgroundColor: chosen ? colours.sheet : 'transparent',
      }}
    >
      <View>
        <Svg width={44} height={44} viewBox="0 0 44 44" aria-hidden>
          {children}
        </Svg>
      </View>
    </Press>
  )
}
