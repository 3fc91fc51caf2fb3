import { router } from 'expo-router'
import type { ComponentType } from 'react'
import {
  Basket,
  Camera,
  FilmCamera,
  PenPot,
  RuledPage,
  SpeakingTrumpet,
  TalkingPen,
} from './MakeThings'
import { pickInto } from './pickedFiles'
import { t } from './words'

/** A way to make something: a thing on the shelf, and what a tap on it does at once. */
export type Way = { label: string; thing: ComponentType<{ size: number }>; begin: () => void }

export const WAYS: readonly Way[] = [
  { label: t('photo'), thing: Camera, begin: () => router.push('/make') },
  { label: t('draw'), thing: PenPot, begin: () => router.push('/draw') },
  { label: t('say'), thing: SpeakingTrumpet, begin: () => router.push('/say') },
  { label: t('show'), thing: TalkingPen, begin: () => router.push('/talk') },
  { label: t('filmIt'), thing: FilmCamera, begin: () => router.push('/film') },
  { label: t('write'), thing: RuledPage, begin: () => router.push('/write') },
  {
    label: t('pick'),
    thing: Basket,
    begin: () => void pickInto('/make?pick=1'),
  },
]
