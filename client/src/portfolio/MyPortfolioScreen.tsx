import { router } from 'expo-router'
import { useSession } from '../accounts'
import { Heading, Page } from '../kit/layout'
import { Empty } from '../kit/Notice'
import { isHere, NotYet } from '../kit/NotYet'
import { Chapters } from './Chapters'
import { usePortfolio } from './portfolioQueries'
import { t } from './words'

export function MyPortfolioScreen() {
  const session = useSession()
  const portfolio = usePortfolio(session.data?.person?.id ?? '')
  if (!isHere(portfolio)) return <NotYet of={portfolio} />
  const any = portfolio.data.chapters.some(({ picks, others }) => picks.length + others.length > 0)
  return (
    <Page max={900}>
      <Heading level={1}>{t('title')}</Heading>
      {any ? (
        <Chapters
          portfolio={portfolio.data}
          onOpen={(piece) => router.push(`/my-pieces/${piece.id}`)}
        />
      ) : (
        <Empty symbol="portfolio" title={t('empty')}>
          {t('emptyHelp')}
        </Empty>
      )}
    </Page>
  )
}
