import { router } from 'expo-router'
import { BigButton } from './BigButton'
import { Page } from './layout'
import { Empty } from './Notice'
import { strings } from './strings'

export function NotFoundScreen() {
  return (
    <Page>
      <Empty
        symbol="lens"
        title={strings.notFoundTitle}
        action={
          <BigButton label={strings.home} symbol="home" onPress={() => router.replace('/')} />
        }
      >
        {strings.notFound}
      </Empty>
    </Page>
  )
}
