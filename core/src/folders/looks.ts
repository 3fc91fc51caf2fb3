/** Symbols a folder may carry; each is drawn by the client under the same name. */
export const FOLDER_SYMBOLS = [
  'waves', 'bridge', 'pot', 'wind', 'map', 'home-heart', 'leaf', 'book', 'abacus', 'star', 'flask', 'music',
] as const // prettier-ignore
export type FolderSymbol = (typeof FOLDER_SYMBOLS)[number]

/** Symbols of pegs, one for each pupil of a class: things a five-year-old can name. */
export const PEG_SYMBOLS = [
  'fish', 'kite', 'umbrella', 'leaf', 'rocket', 'bell', 'apple', 'bicycle', 'boat', 'boot', 'butterfly', 'cactus',
  'candle', 'carrot', 'cat', 'cherries', 'clover', 'cloud', 'crown', 'dog', 'anchor', 'duck', 'elephant', 'feather',
  'flower', 'guitar', 'hat', 'heart', 'key', 'ladybird', 'lamp', 'moon', 'mushroom', 'owl', 'pear', 'piano', 'snail',
  'snowflake', 'spade', 'star', 'sun', 'teddy', 'tractor', 'train', 'tree', 'turtle', 'watering-can', 'whistle',
] as const // prettier-ignore
export type PegSymbol = (typeof PEG_SYMBOLS)[number]

/** The pigments pegs and folder spines are painted in. */
export const COLOURS = ['aubergine', 'ochre', 'verdigris', 'clay', 'sea', 'moss', 'indigo', 'madder'] as const
export type Colour = (typeof COLOURS)[number]
