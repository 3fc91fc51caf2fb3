import { TRAY_GROUPINGS } from '@nibquill/core/review/groupTray'
import { TRAY_ORDERS } from '@nibquill/core/review/trayOrder'
import { router } from 'expo-router'
import { Text } from 'react-native-paper'
import { useWaitingComments } from '../comments'
import { Bar, Stack } from '../kit/layout'
import { Press } from '../kit/Press'
import { DrawnSymbol } from '../kit/DrawnSymbol'
import { colours, corners, space, targets } from '../kit/theme'
import { useTitle } from '../kit/useTitle'
import { useClasses } from '../school'
import { useSecondLooks } from './reviewQueries'
import type { TrayView } from './useTrayView'
import { t } from './words'

/** Easily hit, without pushing the lines apart. */
export const IN_LINE = { minHeight: 44, marginVertical: -12, justifyContent: 'center' } as const

/** How much waits, what else does, and how the list is looked at. */
export function TrayHead({
  counts,
  view,
  onChange,
}: {
  counts: { waiting: number; drafts: number }
  view: TrayView
  onChange: (more: Partial<TrayView>) => void
}) {
  useTitle(t('tray'))
  const classes = (useClasses().data ?? []).filter(({ mine, running }) => mine && running)
  const other = TRAY_ORDERS.find((one) => one !== view.order)!
  return (
    <Stack
      gap="near"
      style={{ padding: space.clear, borderBottomWidth: 1, borderBottomColor: colours.rule }}
    >
      <Text role="heading" aria-level={1} variant="headlineLarge">
        {t('tray')}
      </Text>
      <Bar wrap gap="close">
        <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
          {t('waiting', { count: counts.waiting })}
        </Text>
        <CommentsLink />
        <SecondLooksLink />
        {counts.drafts > 0 ? (
          <Press
            role="link"
            onPress={() =>
              router.push({
                pathname: '/tray/drafts',
                params: view.classId ? { class: view.classId } : {},
              })
            }
            style={IN_LINE}
          >
            <Text variant="bodyMedium" style={{ color: colours.sea }}>
              {t('drafts', { count: counts.drafts })}
            </Text>
          </Press>
        ) : null}
      </Bar>
      {classes.length > 1 ? (
        <SmallTabs
          label={t('whichClass')}
          value={view.classId ?? ''}
          options={[
            { value: '', label: t('allClasses') },
            ...classes.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(classId) => onChange({ classId: classId || undefined })}
        />
      ) : null}
      <SmallTabs
        label={t('groupBy')}
        value={view.by}
        options={TRAY_GROUPINGS.map((by) => ({ value: by, label: t(`group.${by}`) }))}
        onChange={(by) => onChange({ by })}
      />
      <Press
        label={`${t(`orders.${view.order}`)}, ${t('turnTo', { order: t(`orders.${other}`) })}`}
        onPress={() => onChange({ order: other })}
        style={{ ...IN_LINE, marginVertical: -8, paddingHorizontal: 10 }}
      >
        <Bar gap="tight">
          <DrawnSymbol name="sort" size={18} colour={colours.sea} />
          <Text variant="bodySmall" style={{ color: colours.sea }}>
            {t(`orders.${view.order}`)}
          </Text>
        </Bar>
      </Press>
    </Stack>
  )
}

function CommentsLink() {
  const count = useWaitingComments().data?.length ?? 0
  if (count === 0) return null
  return (
    <Press role="link" onPress={() => router.push('/tray/comments')} style={IN_LINE}>
      <Text variant="bodyMedium" style={{ color: colours.sea }}>
        {t('comments', { count })}
      </Text>
    </Press>
  )
}

function SecondLooksLink() {
  const count = useSecondLooks().data?.length ?? 0
  if (count === 0) return null
  return (
    <Press role="link" onPress={() => router.push('/tray/second-looks')} style={IN_LINE}>
      <Text variant="bodyMedium" style={{ color: colours.sea }}>
        {t('secondLooks', { count })}
      </Text>
    </Press>
  )
}

function SmallTabs<T extends string>({
  label,
  value,
  options,
  onChange,
}: {
  label: string
  value: T
  options: readonly { value: T; label: string }[]
  onChange: (value: T) => void
}) {
  return (
    <Bar role="tablist" aria-label={label} align="stretch" gap="tight" wrap>
      {options.map((option) => {
        const chosen = option.value === value
        return (
          <Press
            key={option.value}
            role="tab"
            selected={chosen}
            label={option.label}
            onPress={() => onChange(option.value)}
            style={{
              minHeight: targets.adult,
              paddingHorizontal: 10,
              justifyContent: 'center',
              borderRadius: corners.button,
              backgroundColor: chosen ? colours.aubergineTint : 'transparent',
            }}
          >
            <Text
              variant={chosen ? 'labelMedium' : 'bodySmall'}
              style={{ color: chosen ? colours.aubergine : colours.inkSoft }}
            >
              {option.label}
            </Text>
          </Press>
        )
      })}
    </Bar>
  )
}
