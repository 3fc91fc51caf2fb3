import type { PagePart } from '@nibquill/contract'
import { MOST_PAGES, pageForm } from '@nibquill/core'
import { useState } from 'react'
import { View } from 'react-native'
import { Text } from 'react-native-paper'
import { Bar } from '../kit/layout'
import { RuledLines } from '../kit/RuledLines'
import { colours, space } from '../kit/theme'
import { fileHere } from '../media/filesHere'
import { mediaAddress } from '../media/mediaAddress'
import { Picture } from '../media/Picture'
import { SaveButton } from '../media/SaveButton'
import { PageTurner } from './PageTurner'
import type { PartViewProps } from './partKinds'
import { PictureStage } from './PictureStage'
import { t } from './words'

/** Its first page; ruled lines until the school has a picture of it. */
export function PageSheet({
  part,
  alt,
  link,
  size,
}: PartViewProps<PagePart> & { size: 320 | 960 }) {
  const { paper } = part.files
  if (paper.state !== 'ready')
    return (
      <View
        {...(alt ? { role: 'img' as const, 'aria-label': alt } : { 'aria-hidden': true })}
        style={{ flex: 1 }}
      >
        <RuledLines />
      </View>
    )
  return <Picture file={paper} alt={alt} size={size} fit="cover" {...(link ? { link } : {})} />
}

/** Its pages, one at a time, to be looked at closely; the paper itself can be taken along. */
export function PageStage({ part, alt, link }: PartViewProps<PagePart>) {
  const { paper } = part.files
  const [at, setAt] = useState(0)
  const of = Math.min(part.pages, MOST_PAGES)
  return (
    <View style={{ flex: 1, minHeight: 220, gap: space.near }}>
      {paper.state === 'ready' ? (
        <PictureStage
          key={at}
          file={paper}
          form={pageForm(at + 1)}
          alt={of > 1 ? `${alt}, ${t('turn.page.at', { at: at + 1, of })}` : alt}
          fullIsPicture={false}
          {...(link ? { link } : {})}
        />
      ) : (
        <View style={{ flex: 1, justifyContent: 'center', padding: space.far }}>
          <Text variant="bodyLarge">
            {t(
              fileHere(paper.mediaId)
                ? 'pagesAtSchool'
                : paper.state === 'arrived'
                  ? 'pagesSoon'
                  : 'pagesNever',
            )}
          </Text>
        </View>
      )}
      <Bar wrap gap="near" style={{ justifyContent: 'center' }}>
        {paper.state === 'ready' ? <PageTurner what="page" at={at} of={of} onTurn={setAt} /> : null}
        {part.pages > of ? (
          <Text variant="bodyMedium" style={{ color: colours.inkSoft }}>
            {t('morePages', { shown: of, pages: part.pages })}
          </Text>
        ) : null}
        <SaveButton
          label={t('savePaper')}
          address={mediaAddress(paper, 'full', link)}
          name={part.name || 'page.pdf'}
        />
      </Bar>
    </View>
  )
}
