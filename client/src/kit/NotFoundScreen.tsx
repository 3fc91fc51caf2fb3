import { router } from 'expo-router'
import { BigButton } from './BigButton'
import { Page } from './layout'
import { Empty } from './Notice'
import { t } from './words'

export function NotFoundScreen() {
  return (
    <Page>
      <Empty
        symbol="lens"
        title={t('notFoundTitle')}
        action={<BigButton label={t('home')} symbol="home" onPress={() => router.replace('/')} />}
      >
        {t('notFound')}
      </Empty>
    </Page>
  )
}
