import { router } from 'expo-router'
import { OpenFolder } from './OpenFolder'

export const FolderScreen = () => (
  <OpenFolder shelf="/folders" withNames onOpen={({ id }) => router.push(`/tray/${id}`)} />
)
