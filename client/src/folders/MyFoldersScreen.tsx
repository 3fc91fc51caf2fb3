import { router } from 'expo-router'
import { Shelf } from './Shelf'
import { strings } from './strings'

export const MyFoldersScreen = () => (
  <Shelf title={strings.mine} onOpen={({ id }) => router.push(`/my-folders/${id}`)} note={() => undefined} />
)
