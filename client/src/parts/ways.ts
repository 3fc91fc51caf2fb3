import { router } from 'expo-router'
import type { ComponentType } from 'react'
import { pickPictures } from '../device/pickFiles'
import { Basket, Camera, RuledPage } from './MakeThings'
import { layDown } from './pickedFiles'
import { strings } from './strings'

/** A way to make something: a thing on the shelf, and what a tap on it does at once. */
export type Way = { label: string; thing: ComponentType<{ size: number }>; begin: () => void }

export const WAYS: readonly Way[] = [
  { label: strings.photo, thing: Camera, begin: () => router.push('/make') },
  { label: strings.write, thing: RuledPage, begin: () => router.push('/write') },
  {
    label: strings.pick,
    thing: Basket,
    begin: () =>
      void pickPictures().then((files) => {
        if (files.length === 0) return
        layDown(files)
        router.push('/make?pick=1')
      }),
  },
]
