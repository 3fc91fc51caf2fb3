import { router } from 'expo-router'
import { OpenFolder } from './OpenFolder'

export const MyFolderScreen = () => (
  <OpenFolder
    shelf="/my-folders"
    withNames={false}
    onOpen={({ id }) => router.push(`/my-pieces/${id}`)}
  />
)
