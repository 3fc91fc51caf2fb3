import type { PupilDetail } from '@nibquill/contract'
import { router } from 'expo-router'
import { View } from 'react-native'
import { useWhen } from '../kit/useWhen'
import { Hint } from '../kit/form'
import { Bar, Heading } from '../kit/layout'
import { Peg } from '../kit/Peg'
import { RoundButton } from '../kit/RoundButton'
import { targets } from '../kit/theme'
import { useKeys } from '../review'
import { schoolWords, useClass } from '../school'
import { t } from './words'

/** Who is next to a pupil in the class, and the keys that lead there: N and the arrow, B and the other. */
export function useNeighbours(pupilId: string, classId: string | undefined) {
  const order = useClass(classId ?? '').data?.pupils ?? []
  const at = order.findIndex((other) => other.id === pupilId)
  const [before, after] = [order[at - 1], at < 0 ? undefined : order[at + 1]]
  const to = (other: { id: string } | undefined) => other && router.replace(`/class/${other.id}`)
  return { before, after, toBefore: () => to(before), toAfter: () => to(after) }
}

/** Whose page it is, and the ways to the class and from pupil to pupil. */
export function PupilHead({ pupil }: { pupil: PupilDetail }) {
  const { whenWasIt } = useWhen()
  const { before, after, toBefore, toAfter } = useNeighbours(pupil.id, pupil.classId)
  useKeys({ n: toAfter, b: toBefore, arrowright: toAfter, arrowleft: toBefore }, true)
  return (
    <Bar>
      <RoundButton
        label={t('backToClass')}
        symbol="back"
        size={targets.adult}
        onPress={() => router.replace(`/class?classId=${pupil.classId}`)}
      />
      <Peg peg={pupil.peg} size={60} />
      <View style={{ flex: 1 }}>
        <Heading level={1}>{`${pupil.firstName} ${pupil.lastName}`.trim()}</Heading>
        <Hint>
          {[
            pupil.className,
            pupil.leftAt
              ? schoolWords('gone')
              : schoolWords('lastSeen', {
                  when: pupil.lastSeenAt ? whenWasIt(pupil.lastSeenAt) : schoolWords('never'),
                }),
          ].join(' · ')}
        </Hint>
      </View>
      <RoundButton
        label={t('previousPupil')}
        symbol="previous"
        size={targets.adult}
        disabled={!before}
        onPress={toBefore}
      />
      <RoundButton
        label={t('nextPupil')}
        symbol="next"
        size={targets.adult}
        disabled={!after}
        onPress={toAfter}
      />
    </Bar>
  )
}
