export const messages = {
  waitsForNetwork: 'It is safe on this tablet and waits for the network.',
  waitsForSchool:
    'It is safe on this tablet. The school cannot take it just now, and it is tried again by itself.',
  waitsForCard: 'It waits here for your card.',
} as const
