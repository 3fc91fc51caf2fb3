import {
  emptySheet,
  MOST_SHEETS,
  PAPERS,
  type Paper,
  type Thing,
} from '@nibquill/core/ink/document'
import { inkToSvg } from '@nibquill/core/ink/svg'
import { useState } from 'react'
import { Image } from 'react-native'
import { Text } from 'react-native-paper'
import { v7 as newId } from 'uuid'
import { Ask } from '../kit/Ask'
import { BigButton } from '../kit/BigButton'
import { Choices } from '../kit/choices'
import { Bar, Stack } from '../kit/layout'
import { Overlay } from '../kit/Overlay'
import { Press } from '../kit/Press'
import { RoundButton } from '../kit/RoundButton'
import { colours, corners, space } from '../kit/theme'
import { toast } from '../kit/Toast'
import type { Drawing, Seen } from './drawing'
import type { Pictures } from '../sheets/pictures'
import { savePng, saveSvg } from './saveSheet'
import { t } from './words'

type Props = {
  drawing: Drawing
  seen: Seen
  name: string
  pictures: Pictures
  leftHanded: boolean
  onLeftHanded: (left: boolean) => void
}

/** Everything about the sheets themselves: paper, more of them, clearing, saving. */
export function SheetsMenu(props: Props) {
  const [open, setOpen] = useState(false)
  const [clearing, setClearing] = useState(false)
  const { drawing, seen, leftHanded, onLeftHanded } = props
  const { sheet } = seen
  return (
    <>
      <RoundButton label={t('sheets')} symbol="layers" onPress={() => setOpen(true)} />
      <Overlay visible={open} title={t('sheets')} width={640} onClose={() => setOpen(false)}>
        <Stack gap="clear" style={{ padding: space.far, paddingTop: 0 }}>
          <Papers
            chosen={sheet.paper}
            onPick={(paper) => drawing.act([{ kind: 'paper', sheetId: sheet.id, paper }])}
          />
          <SheetActions
            {...props}
            onDone={() => setOpen(false)}
            onClear={() => setClearing(true)}
          />
          <Choices
            label={t('hand')}
            value={leftHanded}
            options={[
              { value: true, label: t('left') },
              { value: false, label: t('right') },
            ]}
            onChange={onLeftHanded}
          />
          <SaveAs seen={seen} name={props.name} pictures={props.pictures} />
          <BigButton label={t('close')} onPress={() => setOpen(false)} />
        </Stack>
      </Overlay>
      <Ask
        visible={clearing}
        title={t('clearAsk')}
        yes={t('clearYes')}
        no={t('clearNo')}
        tone="again"
        onYes={() => {
          setClearing(false)
          drawing.act([
            {
              kind: 'take',
              sheetId: sheet.id,
              ids: sheet.things.filter(isNotFixed).map(({ id }) => id),
            },
          ])
        }}
        onNo={() => setClearing(false)}
      >
        {t('clearHelp')}
      </Ask>
    </>
  )
}

/** What the teacher fixed stays. */
const isNotFixed = ({ fixed }: Thing): boolean => !fixed

/** One sheet more, everything off this one, or the whole of it out. */
function SheetActions({
  drawing,
  seen,
  onDone,
  onClear,
}: Props & { onDone: () => void; onClear: () => void }) {
  const { sheet, ink } = seen
  const done = (work: () => void) => () => {
    onDone()
    work()
  }
  const takeOut = () => {
    drawing.act([{ kind: 'take-sheet', sheetId: sheet.id }])
    toast(t('sheetTaken'), { undo: () => drawing.undo() })
  }
  return (
    <Bar wrap>
      <BigButton
        small
        grow
        symbol="plus"
        tone="quiet"
        label={t('newSheet')}
        disabled={ink.sheets.length >= MOST_SHEETS}
        onPress={done(() => addSheet(drawing, seen))}
      />
      {sheet.things.some(isNotFixed) ? (
        <BigButton
          small
          grow
          symbol="bin"
          tone="quiet"
          label={t('clear')}
          onPress={done(onClear)}
        />
      ) : null}
      {ink.sheets.length > 1 ? (
        <BigButton
          small
          grow
          symbol="take-out"
          tone="quiet"
          label={t('takeSheet')}
          onPress={done(takeOut)}
        />
      ) : null}
    </Bar>
  )
}

/** A sheet of the same paper, behind the one that lies on top. */
function addSheet(drawing: Drawing, { ink, sheet, at }: Seen): void {
  const id = newId()
  const below = ink.sheets[at + 1]?.id ?? null
  const { width, height, paper } = sheet
  drawing.act([{ kind: 'put-sheet', sheet: { ...emptySheet(id, paper), width, height }, below }])
  drawing.turnTo(id)
}

function Papers({ chosen, onPick }: { chosen: Paper; onPick: (paper: Paper) => void }) {
  return (
    <Stack gap="close">
      <Text variant="labelMedium" aria-hidden style={{ color: colours.inkSoft }}>
        {t('paperKind')}
      </Text>
      <Bar role="radiogroup" aria-label={t('paperKind')} wrap gap="near" align="stretch">
        {PAPERS.map((paper) => (
          <Press
            key={paper}
            role="radio"
            selected={paper === chosen}
            label={t(`papers.${paper}`)}
            onPress={() => onPick(paper)}
            style={{
              ...{ width: 104, gap: space.tight, padding: space.tight, alignItems: 'center' },
              ...{ borderRadius: corners.sheet, borderWidth: 3 },
              borderColor: paper === chosen ? colours.aubergine : 'transparent',
            }}
          >
            <Image
              source={{ uri: SAMPLES[paper] }}
              style={{ width: 88, height: 58, borderWidth: 1, borderColor: colours.rule }}
            />
            <Text variant="labelSmall" style={{ textAlign: 'center' }}>
              {t(`papers.${paper}`)}
            </Text>
          </Press>
        ))}
      </Bar>
    </Stack>
  )
}

/** A corner of each paper, in half its size. */
const SAMPLES = Object.fromEntries(
  PAPERS.map((paper) => {
    const svg = inkToSvg({ ...emptySheet('s', paper), width: 5800, height: 3823 })
    return [paper, `data:image/svg+xml,${encodeURIComponent(svg)}`]
  }),
) as Record<Paper, string>

function SaveAs({ seen, name, pictures }: Pick<Props, 'seen' | 'name' | 'pictures'>) {
  return (
    <Stack gap="close">
      <Text variant="labelMedium" style={{ color: colours.inkSoft }}>
        {t('save')}
      </Text>
      <Bar wrap>
        <BigButton
          small
          grow
          tone="quiet"
          symbol="download"
          label={t('savePng')}
          onPress={() => void savePng(seen.sheet, pictures, `${name}.png`)}
        />
        <BigButton
          small
          grow
          tone="quiet"
          symbol="download"
          label={t('saveSvg')}
          onPress={() => saveSvg(seen.sheet, pictures, `${name}.svg`)}
        />
      </Bar>
    </Stack>
  )
}
