import { ALL, AS_IT_WAS, isAsItWas, turnQuarter, type Tidying } from '@nibquill/core'
import { isConvex, type Quad } from '@nibquill/core/tidy/projective'
import { useEffect, useRef, useState, type ReactNode } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { BigButton } from '../kit/BigButton'
import { Bar, Split, Stack, useWidth } from '../kit/layout'
import { Loading, Notice } from '../kit/Notice'
import { Press } from '../kit/Press'
import { Progress } from '../kit/Progress'
import { RoundButton } from '../kit/RoundButton'
import { DrawnSymbol, type SymbolName } from '../kit/DrawnSymbol'
import { colours, corners as radii, space, targets } from '../kit/theme'
import type { Opened } from '../workers/tidy.worker'
import { BrightenControls, StraightenControls, TrimControls, TurnControls } from './controls'

import { Tidier } from './tidier'
import { Corners, TidyStage, TrimFrame } from './TidyStage'
import { useTidying } from './useTidying'
import { t } from './words'

/** Larger than any tablet shows it, small enough to follow a finger. */
const PREVIEW_PX = 1280
/** Where no page was found the corners begin a little inside the photo. */
const INSET: Quad = [
  { x: 0.1, y: 0.1 },
  { x: 0.9, y: 0.1 },
  { x: 0.9, y: 0.9 },
  { x: 0.1, y: 0.9 },
]
/** A page found less surely is not shown before it is asked for. */
const SHOW_FROM = 0.3

export type TidyTool = 'straighten' | 'brighten' | 'turn' | 'trim'
const TOOLS: { tool: TidyTool; symbol: SymbolName }[] = [
  { tool: 'straighten', symbol: 'straighten' },
  { tool: 'brighten', symbol: 'brighten' },
  { tool: 'turn', symbol: 'turn' },
  { tool: 'trim', symbol: 'trim' },
]

type Props = {
  /** The photo as the camera saw it. */
  original: Blob
  /** What was done to it before. */
  before: Tidying
  /** Given the tidied picture, or null when it shall be as it was. */
  onKeep: (made: Blob | null, tidying: Tidying) => Promise<void>
  onLeave: () => void
}

/** A photo on the tidying table: four tools, every step undoable, the original untouched. */
export function TidyScreen({ original, before, onKeep, onLeave }: Props) {
  const { tidier, opened, failed } = useTidier(original)
  if (failed) {
    return (
      <Stack gap="clear" style={{ flex: 1, padding: space.far, backgroundColor: colours.paper }}>
        <Notice tone="attention" symbol="alert">
          {t('cannotOpen')}
        </Notice>
        <BigButton label={t('leave')} symbol="back" onPress={onLeave} />
      </Stack>
    )
  }
  if (!tidier || !opened) return <Loading />
  return <Table tidier={tidier} opened={opened} before={before} onKeep={onKeep} onLeave={onLeave} />
}

function useTidier(original: Blob) {
  const [tidier, setTidier] = useState<Tidier | null>(null)
  const [opened, setOpened] = useState<Opened | null>(null)
  const [failed, setFailed] = useState(false)
  useEffect(() => {
    const fresh = new Tidier()
    setTidier(fresh)
    fresh.open(original).then(setOpened, () => setFailed(true))
    return () => fresh.close()
  }, [original])
  return { tidier, opened, failed }
}

function Table({
  tidier,
  opened,
  before,
  onKeep,
  onLeave,
}: Omit<Props, 'original'> & { tidier: Tidier; opened: Opened }) {
  const { tidying, change, begin, move, undo, redo } = useTidying(before)
  const found = opened.page && opened.page.sureness >= SHOW_FROM ? opened.page.corners : null
  const [tool, setTool] = useState<TidyTool | null>(
    found && isAsItWas(before) ? 'straighten' : null,
  )
  const [wished, setWished] = useState<Quad>(before.corners ?? found ?? INSET)
  const { keep, share, trouble } = useKeeping(tidier, tidying, onKeep)
  const { wide, height } = useWidth()
  const beside = wide || height < 620
  const picture = usePreview(tidier, shownWith(tool, tidying))

  const choose = (next: TidyTool) => {
    if (next === 'straighten') setWished(tidying.corners ?? found ?? INSET)
    setTool(tool === next ? null : next)
  }
  const flatten = (corners: Quad | null) => {
    // What was trimmed was trimmed of another picture.
    change({ ...tidying, corners, trim: ALL })
    setTool(null)
  }
  return (
    <View style={{ flex: 1, backgroundColor: colours.paper }}>
      <Head
        undo={undo}
        redo={redo}
        onLeave={onLeave}
        onKeep={() => void keep()}
        busy={share !== null}
      />
      <Making share={share} trouble={trouble} />
      <Split beside={beside} style={{ flex: 1 }}>
        <TidyStage picture={picture}>
          {(stage) =>
            tool === 'straighten' && picture ? (
              <Corners
                {...{ stage, picture }}
                value={wished}
                onStart={nothing}
                onMove={setWished}
              />
            ) : tool === 'trim' ? (
              <TrimFrame
                stage={stage}
                value={tidying.trim}
                onStart={begin}
                onMove={(trim) => move({ ...tidying, trim })}
              />
            ) : null
          }
        </TidyStage>
        <Bench beside={beside}>
          {tool === null ? (
            <OriginalStays />
          ) : (
            <ToolControls
              tool={tool}
              tidying={{ tidying, change, begin, move }}
              looksLikePage={opened.looksLikePage}
              found={found}
              wished={wished}
              onWish={setWished}
              onFlatten={flatten}
            />
          )}
          <Tools
            chosen={tool}
            onChoose={choose}
            onAsItWas={isAsItWas(tidying) ? null : () => (change(AS_IT_WAS), setTool(null))}
          />
        </Bench>
      </Split>
    </View>
  )
}

const nothing = () => undefined

/** A tool works on what it changes as it was before it. */
function shownWith(tool: TidyTool | null, tidying: Tidying): Tidying {
  if (tool === 'straighten') return AS_IT_WAS
  return tool === 'trim' ? { ...tidying, trim: ALL } : tidying
}

const OriginalStays = () => (
  <Text variant="bodyMedium" style={{ color: colours.inkSoft, textAlign: 'center' }}>
    {t('original')}
  </Text>
)

/** Where the tools lie: beside the picture, or below it. */
const Bench = ({ beside, children }: { beside: boolean; children: ReactNode }) => (
  <Stack
    style={{
      backgroundColor: colours.sheet,
      borderColor: colours.rule,
      padding: space.apart,
      ...(beside
        ? { width: 340, borderLeftWidth: 1, justifyContent: 'center' }
        : { borderTopWidth: 1 }),
    }}
  >
    {children}
  </Stack>
)

/** How far the picture is, or that it cannot be made. */
function Making({ share, trouble }: { share: number | null; trouble: boolean }) {
  if (trouble)
    return (
      <Notice tone="again" symbol="alert">
        {t('cannotOpen')}
      </Notice>
    )
  if (share === null) return null
  return (
    <Stack role="status" gap="close" style={{ padding: space.apart }}>
      <Text variant="bodyLarge">{t('making', { share })}</Text>
      <Progress share={share} label={t('making', { share })} />
    </Stack>
  )
}

/** Makes the picture and hands it over, once. @returns `share`: how far it is; null: not yet asked */
function useKeeping(tidier: Tidier, tidying: Tidying, onKeep: Props['onKeep']) {
  const [share, setShare] = useState<number | null>(null)
  const [trouble, setTrouble] = useState(false)
  const keep = async () => {
    if (share !== null) return
    setTrouble(false)
    setShare(0)
    try {
      await onKeep(isAsItWas(tidying) ? null : await tidier.make(tidying, setShare), tidying)
    } catch {
      setTrouble(true)
      setShare(null)
    }
  }
  return { keep, share, trouble }
}

/** What the chosen tool can do. */
function ToolControls({
  tool,
  tidying: { tidying, change, begin, move },
  looksLikePage,
  found,
  wished,
  onWish,
  onFlatten,
}: {
  tool: TidyTool
  tidying: Pick<ReturnType<typeof useTidying>, 'tidying' | 'change' | 'begin' | 'move'>
  looksLikePage: boolean
  found: Quad | null
  wished: Quad
  onWish: (corners: Quad) => void
  onFlatten: (corners: Quad | null) => void
}) {
  switch (tool) {
    case 'straighten':
      return (
        <StraightenControls
          found={found !== null}
          crossed={!isConvex(wished)}
          flat={tidying.corners !== null}
          onFlatten={() => onFlatten(wished)}
          onFindAgain={found ? () => onWish(found) : null}
          onLeave={() => onFlatten(null)}
        />
      )
    case 'brighten':
      return (
        <BrightenControls
          value={
            tidying.brighten ?? {
              way: looksLikePage || tidying.corners ? 'page' : 'scene',
              strength: 0,
            }
          }
          onChange={(brighten) => change({ ...tidying, brighten })}
        />
      )
    case 'turn':
      return (
        <TurnControls
          degrees={tidying.degrees}
          onQuarter={(times) =>
            change(Array.from({ length: times }).reduce<Tidying>(turnQuarter, tidying))
          }
          onBegin={begin}
          onDegrees={(degrees) => move({ ...tidying, degrees })}
        />
      )
    case 'trim':
      return (
        <TrimControls
          onAll={() => change({ ...tidying, trim: ALL })}
          trimmed={tidying.trim !== ALL}
        />
      )
  }
}

/** The newest wish is drawn; those that came while the worker was busy are passed over. */
function usePreview(tidier: Tidier, tidying: Tidying): ImageBitmap | null {
  const [picture, setPicture] = useState<ImageBitmap | null>(null)
  const wish = useRef<Tidying>(tidying)
  const busy = useRef(false)
  wish.current = tidying
  const key = JSON.stringify(tidying)
  useEffect(() => {
    let gone = false
    const draw = async () => {
      if (busy.current) return
      busy.current = true
      for (let drawn: Tidying | null = null; drawn !== wish.current && !gone;) {
        drawn = wish.current
        const fresh = await tidier.preview(drawn, PREVIEW_PX).catch(() => null)
        if (fresh && !gone) setPicture(fresh)
      }
      busy.current = false
    }
    void draw()
    return () => {
      gone = true
      busy.current = false
    }
  }, [tidier, key])
  return picture
}

type HeadProps = {
  undo: (() => void) | null
  redo: (() => void) | null
  onLeave: () => void
  onKeep: () => void
  busy: boolean
}

function Head({ undo, redo, onLeave, onKeep, busy }: HeadProps) {
  const { tablet } = useWidth()
  return (
    <Bar
      gap="tight"
      style={{
        backgroundColor: colours.sheet,
        borderBottomWidth: 1,
        borderBottomColor: colours.rule,
        padding: space.near,
      }}
    >
      {tablet ? (
        <BigButton small tone="quiet" symbol="back" label={t('leave')} onPress={onLeave} />
      ) : (
        <RoundButton symbol="back" label={t('leave')} onPress={onLeave} />
      )}
      <View style={{ flex: 1 }}>
        {tablet ? (
          <Text role="heading" aria-level={1} variant="titleMedium" style={{ textAlign: 'center' }}>
            {t('tidy')}
          </Text>
        ) : null}
      </View>
      <RoundButton symbol="undo" label={t('undo')} disabled={!undo} onPress={() => undo?.()} />
      <RoundButton symbol="redo" label={t('redo')} disabled={!redo} onPress={() => redo?.()} />
      <BigButton symbol="check" tone="good" label={t('keep')} onPress={onKeep} busy={busy} />
    </Bar>
  )
}

/** Five words beside each other on a phone. */
/** So that the longest of them fits a fifth of a phone. */
const word = { fontSize: 12, letterSpacing: 0 } as const

type ToolsProps = {
  chosen: TidyTool | null
  onChoose: (tool: TidyTool) => void
  onAsItWas: (() => void) | null
}

function Tools({ chosen, onChoose, onAsItWas }: ToolsProps) {
  const { wide } = useWidth()
  const tile = (on: boolean) => ({
    flexGrow: 1,
    minWidth: wide ? 92 : 60,
    minHeight: targets.pupil + 12,
    borderRadius: radii.button,
    alignItems: 'center' as const,
    justifyContent: 'center' as const,
    gap: space.tight,
    paddingHorizontal: space.hair,
    backgroundColor: on ? colours.aubergine : colours.aubergineTint,
  })
  return (
    <Bar role="toolbar" aria-label={t('tools')} wrap align="stretch" gap="close">
      {TOOLS.map(({ tool, symbol }) => (
        <Press
          key={tool}
          role="radio"
          selected={chosen === tool}
          label={t(tool)}
          onPress={() => onChoose(tool)}
          style={tile(chosen === tool)}
        >
          <DrawnSymbol
            name={symbol}
            size={28}
            colour={chosen === tool ? colours.sheet : colours.aubergine}
          />
          <Text
            variant="labelSmall"
            numberOfLines={1}
            style={[word, { color: chosen === tool ? colours.sheet : colours.aubergine }]}
          >
            {t(tool)}
          </Text>
        </Press>
      ))}
      <Press
        label={t('asItWas')}
        disabled={!onAsItWas}
        onPress={() => onAsItWas?.()}
        style={tile(false)}
      >
        <DrawnSymbol name="as-it-was" size={28} colour={colours.aubergine} />
        <Text variant="labelSmall" numberOfLines={1} style={[word, { color: colours.aubergine }]}>
          {t('asItWas')}
        </Text>
      </Press>
    </Bar>
  )
}
