/** What other capabilities use of this one. */
export { MakeHead } from './MakeHead'
export { PartsStrip } from './PartsStrip'
export { useGoOnAfter, useGoOnFromMaking } from './LastStep'
export { TakeOut } from './TakeOut'
export { WhatTeacherSaid } from './WhatTeacherSaid'
export { OpenPiece, Round, Told } from './OneGo'
export { useOneGo } from './useOneGo'
