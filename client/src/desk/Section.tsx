import type { ReactNode } from 'react'
import { Heading, Stack } from '../kit/layout'

/** A part of a desk, under what it is called. */
export const Section = ({
  title,
  count,
  children,
}: {
  title: string
  count: number
  children: ReactNode
}) => (
  <Stack role="region" aria-label={title}>
    <Heading count={count}>{title}</Heading>
    {children}
  </Stack>
)
